package model

import (
	"encoding/binary"
	"iter"
)

// Kinds of names that hold inside of a body alone.
const (
	LocalParameter byte = 'p'
	LocalName      byte = 'l'
)

// Local is a name that holds inside of a body alone, with the line it is first
// declared on in its file.
type Local struct {
	Name string
	Kind byte // LocalParameter or LocalName
	Line int
}

// LocalNames goes through the names of parameters and locals of a file, each name of
// a kind once. They are packed as kind, length, name and line: most names are met in
// many files, and a list of texts would weigh several times as much.
func (f *Facts) LocalNames() iter.Seq[Local] {
	return func(yield func(Local) bool) {
		for b := f.Locals; len(b) > 2; {
			kind, n := b[0], int(b[1])
			if len(b) < 2+n+1 {
				return
			}
			line, used := binary.Uvarint(b[2+n:])
			if used <= 0 || !yield(Local{string(b[2 : 2+n]), kind, int(line)}) {
				return
			}
			b = b[2+n+used:]
		}
	}
}
