package links

import "jantel/core/model"

// Ties counts the links of a folder with all below it: those that stay inside,
// and those of which one end lies outside.
type Ties struct {
	Inside   int `json:"inside"`
	Crossing int `json:"crossing"`
}

// TiesOf counts the links of every folder that has any.
func TiesOf(ls []model.Link) map[string]Ties {
	out := map[string]Ties{}
	for i := range ls {
		l := &ls[i]
		if l.Kind.Repeats() || l.From == l.To {
			continue
		}
		from, to := l.From, l.To
		// Both climb until they meet; what holds both holds the link.
		a, b := model.FolderOf(from), model.FolderOf(to)
		for a != b {
			if deeper(a, b) {
				add(out, a, 0, 1)
				a = model.FolderOf(a)
			} else {
				add(out, b, 0, 1)
				b = model.FolderOf(b)
			}
		}
		for ; ; a = model.FolderOf(a) {
			add(out, a, 1, 0)
			if a == "." {
				break
			}
		}
	}
	return out
}

func add(m map[string]Ties, folder string, inside, crossing int) {
	t := m[folder]
	t.Inside += inside
	t.Crossing += crossing
	m[folder] = t
}

// deeper tells whether a lies at least as deep as b.
func deeper(a, b string) bool { return depth(a) >= depth(b) }

func depth(folder string) int {
	if folder == "." {
		return 0
	}
	n := 1
	for i := range folder {
		if folder[i] == '/' {
			n++
		}
	}
	return n
}
