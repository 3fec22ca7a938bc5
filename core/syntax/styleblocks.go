package syntax

import (
	"slices"

	"jantel/core/model"
)

// placing are styles that say where something stands among others, and how much
// room it takes from them; not how it looks inside.
var placing = Set("margin", "marginTop", "marginLeft", "marginRight", "marginBottom", "position", "top", "left", "right", "bottom",
	"zIndex", "float", "alignSelf", "justifySelf", "gridArea", "gridColumn", "gridRow", "flex", "flexBasis")

// looks are styles of any sort.
var looks = Set("margin", "padding", "color", "background", "backgroundColor", "display", "width", "height", "border", "borderRadius",
	"fontSize", "fontWeight", "flexDirection", "alignItems", "justifyContent", "gap", "position", "boxShadow", "cursor", "opacity",
	"maxWidth", "minWidth", "lineHeight", "textAlign", "marginTop", "marginBottom", "overflow", "top", "left", "zIndex", "flex")

// styleBlocks finds styles written in files that draw: objects of styles at the
// top of the file, and styles that a component sets on its own root to place
// itself among what is around it.
func styleBlocks(f *model.Facts, s *Stream) {
	if !slices.ContainsFunc(s.Tokens, func(t Token) bool { return t.Kind == TagOpen }) {
		return // it draws nothing
	}
	depth := 0
	for i := range s.Tokens {
		switch t := &s.Tokens[i]; t.Kind {
		case TagOpen:
			if rootElement(s, i) {
				ownRoot(f, s, i)
			}
		case Punct:
			switch s.Src[t.Start] {
			case '{':
				if depth == 0 && i > 0 && s.Any(i-1, "=", "(") {
					block(f, s, i)
				}
				depth++
			case '}':
				depth--
			}
		}
	}
}

// block keeps an object whose keys are styles, or hold them.
func block(f *model.Facts, s *Stream, open int) {
	end := s.Close(open)
	known, keys := 0, 0
	for k := open + 1; k < end && k < open+2000; k++ {
		if s.Kind(k) == Ident && s.Is(k+1, ":") {
			if s.Is(k+2, "{") {
				continue
			}
			keys++
			if looks[s.Text(k)] {
				known++
			}
		}
	}
	if known >= 4 && 2*known >= keys && len(f.StyleBlocks) < maxInsides {
		f.StyleBlocks = append(f.StyleBlocks, model.Stretch{From: s.Line(open), To: s.EndLine(end)})
	}
}

// rootElement reports whether an element is the first of what is given back.
func rootElement(s *Stream, i int) bool {
	k := i - 1
	if s.Is(k, "(") {
		k--
	}
	return s.Any(k, "return", "=>")
}

// ownRoot notes the styles by which an element places itself.
func ownRoot(f *model.Facts, s *Stream, i int) {
	for k := i + 1; k < len(s.Tokens) && k < i+120 && s.Tokens[k].Kind != TagEnd && s.Tokens[k].Kind != TagOpen; k++ {
		if !s.Match(k, "style", "=", "{", "{") {
			if s.Is(k, "{") {
				k = s.Close(k)
			}
			continue
		}
		placed(f, s, k+4, s.Close(k+3))
		return
	}
}

// placed keeps the styles among some tokens that place what they are set on.
func placed(f *model.Facts, s *Stream, from, to int) {
	for p := from; p < to; p++ {
		if s.Kind(p) != Ident || !s.Is(p+1, ":") || !placing[s.Text(p)] || len(f.OuterStyles) >= maxInsides {
			continue
		}
		// An anchor for what it holds takes no room from others.
		if !s.Is(p, "position") || s.Unquote(p+2) != "relative" {
			f.OuterStyles = append(f.OuterStyles, model.Mention{Name: s.Text(p), Line: s.Line(p)})
		}
	}
}
