// Package demo makes the made-up codebase of the demo, the Hollin Moor seed
// vault, and the review of it.
package demo

import (
	"context"
	_ "embed" // the charter, the picture and the pages of the demo's review
	"strings"

	"jantel/core/model"
	"jantel/review"
	"jantel/server"
)

// Charter is what the demo's lead declares; the code breaks it in places.
//
//go:embed charter.yaml
var Charter string

// picker is how the shelf picker looks to whoever stands before the shelf.
//
//go:embed shelf-picker.png
var picker []byte

// pickerBoxes tie what is to be seen on it to the parts that draw it.
var pickerBoxes = []review.PictureBox{
	{X: 0.06, Y: 0.21, W: 0.17, H: 0.1, Path: "desk/src/components/WeightTag.tsx", Name: "WeightTag", Line: 1},
	{X: 0.23, Y: 0.21, W: 0.09, H: 0.1, Path: "desk/src/utils/misc.ts", Name: "pounds", Line: 1},
}

// seed is one finding of the demo's review.
type seed struct {
	server.NewFinding
	state review.State
	smell string // rule whose first smell it is made of
}

var seeds = []seed{
	{server.NewFinding{Kind: review.Redo, Title: "Cut the shelf picker into reading, choosing " +
		"and drawing", Path: "desk/src/components/ShelfPicker.tsx", Definition: "ShelfPicker",
		Assignee: "Odd Fennimore", Labels: []string{"desk", "duties"}, By: "Maren Thistlewood",
		Text: "It draws, reads the scale, keeps four loose flags and styles itself.\n\nWanted:\n\n- a hook `useScale` " +
			"that owns the connection and one state, not four flags\n- a picker that is given boxes and a weight\n- " +
			"the styles where the others are"}, review.Agreed, ""},
	{
		server.NewFinding{Kind: review.Fix, Title: "Requests and growers need each other", Path: "counter/src/logic/requests.ts", Line: 2,
			Assignee: "Tomas Brackenbury", Labels: []string{"counter"}, By: "Maren Thistlewood",
			Text: "The allowance belongs to requests; growers should not greet with it."}, review.Doing, "file-cycle"},
	{server.NewFinding{Kind: review.Fix, Title: "Three handlers reach past the logic " +
		"into the data", Path: "counter/src/handlers", Assignee: "Tomas Brackenbury",
		Labels: []string{"counter", "layers"}, By: "Priya Quillan",
		Text: "`growers`, `germination` and `requests` call `data` themselves, so their rules are never asked."}, review.Noted, ""},
	{
		server.NewFinding{
			Kind: review.Ask, Title: "Why is the labels route switched off?", Path: "counter/src/app.ts", Line: 21,
			Assignee: "Tomas Brackenbury", By: "Maren Thistlewood", Labels: []string{"counter"},
		},
		review.Noted, "",
	},
	{
		server.NewFinding{
			Kind: review.Ask, Title: "Who weighs boxes twice, and why?", Path: "desk/src/components/ShelfPicker.tsx",
			Line: 53, EndLine: 57, By: "Odd Fennimore",
		},
		review.Noted, "",
	},
	{
		server.NewFinding{
			Kind: review.Improve, Title: "Give the seed cards a folder of their own", Path: "desk/src/components",
			Assignee: "Odd Fennimore", Labels: []string{"desk", "layout"}, By: "Maren Thistlewood",
		},
		review.Agreed, "hidden-by-prefix",
	},
	{
		server.NewFinding{
			Kind: review.Improve, Title: "Say what is in misc, or move it to who uses it",
			Path: "desk/src/utils/misc.ts", Labels: []string{"desk", "names"}, By: "Maren Thistlewood",
		},
		review.Noted, "vague-name",
	},
	{
		server.NewFinding{
			Kind: review.Taste, Title: "Pages could be named without the word Page", Path: "desk/src/pages",
			Labels: []string{"names"}, By: "Odd Fennimore",
		},
		review.Dropped, "",
	},
	{server.NewFinding{Kind: review.Keep, Title: "Each part of the bench holds its rules, rows " +
		"and tests", Path: "bench/bench", Labels: []string{"bench"}, By: "Maren Thistlewood",
		Text: "This is how the desk should be cut as well: *one folder for one part of the work*."}, review.Agreed, ""},
	{
		server.NewFinding{
			Kind: review.Keep, Title: "The panels of a print sheet now say what they show",
			Path: "desk/src/components/PrintSheet.tsx", Labels: []string{"desk"}, By: "Priya Quillan",
		},
		review.Done, "",
	},
	{
		server.NewFinding{
			Kind: review.Fix, Title: "Two ways to pack labels, told apart by a number",
			Path: "counter/src/logic/pack1.ts", Assignee: "Priya Quillan", Labels: []string{"counter", "names"},
			By: "Maren Thistlewood",
		},
		review.Noted, "numbered-name",
	},
	{server.NewFinding{Kind: review.Fix, Title: "The core of the press knows which paper is in " +
		"the printer", Path: "press/core/queue/queue.go", Line: 46, Assignee: "Odd Fennimore",
		Labels: []string{"press", "layers"}, By: "Priya Quillan",
		Text: "Hand `Across` in with the printer; then the core can be tested without a spool."}, review.Agreed, ""},
	{
		server.NewFinding{Kind: review.Improve, Title: "Everything imports one file of types", Path: "shared/src/types/all.ts",
			Labels: []string{"shared"},
			By:     "Maren Thistlewood",
			Text:   "A change to any of the seven types touches all who import the file. Let each part own its types."}, review.Noted, ""},
	{
		server.NewFinding{
			Kind: review.Improve, Title: "The README could say which of the three parts to start first", Path: ".",
			By: "Priya Quillan",
		},
		review.Done, "",
	},
}

// looked are the folders whose files were looked at.
var looked = []string{"counter/src/logic", "counter/src/routes", "bench/bench/germination", "desk/src/pages", "shared"}

// Fill takes the repository in, surveys it and records the review; what is
// there already stays as it is.
func Fill(ctx context.Context, s *server.Server, dir string) error {
	c, err := s.TakeIn(ctx, dir, "after", "hollin-vault")
	if err != nil {
		return err
	}
	if _, err := s.Review().LatestSurvey(ctx, c.ID); err == nil {
		return nil
	}
	if err := s.Survey(ctx, c); err != nil {
		return err
	}
	if found, err := s.Review().Findings(ctx, c.ID); err != nil || len(found) > 0 {
		return err
	}
	if _, err := s.Review().SetBrief(ctx, c.ID, model.Brief{
		Stage: model.InService, In: []string{}, Out: []string{},
		Questions: []string{
			"What would it take to cut the desk as the bench is cut?",
			"Which parts of the counter can the labels printer do without?",
		},
	}, 0); err != nil {
		return err
	}
	if _, err := s.Review().SetCharter(ctx, c.ID, Charter, 0); err != nil {
		return err
	}
	for _, x := range seeds {
		if x.smell != "" {
			if id := s.SmellOf(ctx, c.ID, x.smell, x.Path); id != "" {
				x.Smell = id
			}
		}
		f, err := s.Record(ctx, c.ID, x.NewFinding)
		if err != nil {
			return err
		}
		if x.state != review.Noted {
			if _, err := s.Review().ChangeFinding(ctx, c.ID, f.ID, f.Version, review.Patch{State: &x.state}, x.By); err != nil {
				return err
			}
		}
	}
	for _, p := range looked {
		if _, err := s.MarkRead(ctx, c.ID, p, true, "Maren Thistlewood"); err != nil {
			return err
		}
	}
	if err := putPicture(ctx, s, c.ID); err != nil {
		return err
	}
	return writePages(ctx, s, c.ID)
}

// The pages of the demo's review; the report has the findings after its verdict.
var (
	//go:embed pages/guide.md
	guide string
	//go:embed pages/verdict.md
	verdict string
	//go:embed pages/decision.md
	decision string
	//go:embed pages/regrouping.md
	regrouping string
)

// writePages writes a page of each kind.
func writePages(ctx context.Context, s *server.Server, codebase int64) error {
	title, report, err := s.BeginPage(ctx, codebase, review.PageReport)
	if err != nil {
		return err
	}
	const head = "## The verdict\n\n"
	report = strings.Replace(report, head, head+verdict+"\n", 1)
	for _, p := range []review.Page{
		{Kind: review.PageGuide, Title: "Your first days at the vault", Text: guide, By: "Odd Fennimore"},
		{Kind: review.PageReport, Title: title, Text: report, By: "Maren Thistlewood"},
		{Kind: review.PageDecision, Title: "Deadlines of requests are kept in the logic", Text: decision, By: "Tomas Brackenbury"},
		{Kind: review.PageRegrouping, Title: "The desk by what it is about: drying and requests", Text: regrouping, By: "Maren Thistlewood"},
	} {
		if _, err := s.Review().AddPage(ctx, codebase, p); err != nil {
			return err
		}
	}
	return nil
}

// putPicture puts the picture of the shelf picker to it.
func putPicture(ctx context.Context, s *server.Server, codebase int64) error {
	r := s.Review()
	png, width, height, err := review.Redrawn(picker)
	if err != nil {
		return err
	}
	p, err := r.AddPicture(ctx, codebase, review.Picture{
		Path: "desk/src/components/ShelfPicker.tsx", Name: "ShelfPicker", Width: width, Height: height, By: "Odd Fennimore",
	}, png)
	if err != nil {
		return err
	}
	_, err = r.ChangePicture(ctx, codebase, p.ID, p.Version, pickerBoxes, false, p.By)
	return err
}
