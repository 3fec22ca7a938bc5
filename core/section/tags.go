package section

import (
	"fmt"
	"path"
	"strconv"

	"jantel/core/model"
	"jantel/core/overview"
	"jantel/core/routes"
)

// routesAt lists the routes of the place by part.
func (b *builder) routesAt() map[int][]model.Route {
	out := map[int][]model.Route{}
	for _, r := range routes.Of(b.s) {
		if i, ok := b.partOf[r.Path]; ok && !b.j.Reading.IsTest(r.Path) {
			out[i] = append(out[i], r)
		}
	}
	return out
}

// tags names who comes into each part and what it keeps and calls.
func (b *builder) tags() {
	at := b.routesAt()
	entries := map[int][]model.Entry{}
	for _, e := range b.j.Entries {
		if i, ok := b.partOf[e.Path]; ok && e.Kind != model.EntryScript {
			entries[i] = append(entries[i], e)
		}
	}
	faces := map[int][]string{}
	for _, f := range b.j.Facades {
		if i, ok := b.partOf[f]; ok {
			faces[i] = append(faces[i], f)
		}
	}
	byPart := overview.Systems(b.s, b.j, func(p string) (string, bool) {
		i, ok := b.partOf[p]
		return strconv.Itoa(i), ok
	})
	for i := range b.Parts {
		var above []Tag
		if n := len(at[i]); n > 0 {
			above = append(above, Tag{Text: many(n, "route"), Path: b.Parts[i].Path, Kind: "routes"})
		}
		above = append(above, entryTags(entries[i])...)
		if len(above) == 0 && len(faces[i]) > 0 {
			text := "library: " + path.Base(faces[i][0])
			if len(faces[i]) > 1 {
				text = fmt.Sprintf("library, %d faces", len(faces[i]))
			}
			above = append(above, Tag{Text: text, Path: faces[i][0], Kind: "facade"})
		}
		var below []Tag
		for _, roster := range byPart[strconv.Itoa(i)] {
			switch roster.Name {
			case overview.Plans:
				text := many(len(roster.Items), "planned job")
				above = append(above, Tag{Text: text, Path: roster.Items[0].Path, Line: roster.Items[0].Line, Kind: "job"})
			case overview.Stores, overview.Others:
				kind := "store"
				if roster.Name == overview.Others {
					kind = "system"
				}
				for _, e := range roster.Items {
					below = append(below, Tag{Text: e.Note, Path: e.Path, Line: e.Line, Kind: kind, Below: true})
				}
			}
		}
		b.stand(i, above, false)
		b.stand(i, below, true)
	}
}

// stand adds the tags of a part, the last of too many standing for the rest.
func (b *builder) stand(part int, tags []Tag, below bool) {
	if more := len(tags) - maxTags; more > 0 {
		tags = append(tags[:maxTags-1:maxTags-1], Tag{Text: fmt.Sprintf("%d more", more+1), Path: b.Parts[part].Path, Kind: "more",
			Below: below})
	}
	for k, t := range tags {
		t.X, t.Y = float64(part), float64(k) // made into px by lay
		b.Tags = append(b.Tags, t)
	}
}

// entryTags names the entries of a part: one of its kind by its file, several
// by their number.
func entryTags(entries []model.Entry) []Tag {
	out := []Tag{}
	for _, kind := range []string{model.EntryPage, model.EntryProgram, model.EntryWorker, model.EntryCommand} {
		var of []model.Entry
		for _, e := range entries {
			if e.Kind == kind {
				of = append(of, e)
			}
		}
		if len(of) == 0 {
			continue
		}
		text := kind + " " + path.Base(of[0].Path)
		if len(of) > 1 {
			text = many(len(of), kind)
		}
		out = append(out, Tag{Text: text, Path: of[0].Path, Line: of[0].Line, Kind: "entry"})
	}
	return out
}

func many(n int, word string) string {
	if n == 1 {
		return "1 " + word
	}
	return fmt.Sprintf("%d %ss", n, word)
}
