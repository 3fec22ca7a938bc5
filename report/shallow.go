package report

import "strings"

// mostNested is how deep quotes and lists may stand in each other on one line. Nobody
// writes deeper ones, and to read them takes time that grows with the square of a text.
const mostNested = 24

// shallow is a text in which what would be nested deeper stands as the signs it is
// written with.
func shallow(text string) string {
	if !strings.ContainsAny(text, ">-+*.)") {
		return text
	}
	var out strings.Builder
	for line := range strings.Lines(text) {
		if at := tooDeep(line); at >= 0 {
			out.WriteString(line[:at] + `\` + line[at:])
		} else {
			out.WriteString(line)
		}
	}
	return out.String()
}

// tooDeep is where the sign stands by which a line would be nested too deep; -1 where
// it is not.
func tooDeep(line string) int {
	depth := 0
	for i := 0; i < len(line); {
		switch c := line[i]; {
		case c == ' ' || c == '\t':
			i++
			continue
		case c == '>' || (c == '-' || c == '+' || c == '*') && spaced(line, i+1):
		case c >= '0' && c <= '9':
			end := i
			for end < len(line) && line[end] >= '0' && line[end] <= '9' {
				end++
			}
			if end == len(line) || line[end] != '.' && line[end] != ')' || !spaced(line, end+1) {
				return -1
			}
			i = end
		default:
			return -1
		}
		if depth++; depth > mostNested {
			return i
		}
		i++
	}
	return -1
}

func spaced(line string, at int) bool {
	return at >= len(line) || line[at] == ' ' || line[at] == '\t' || line[at] == '\n'
}
