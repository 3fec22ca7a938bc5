package syntax

import (
	"bytes"
	"sync"
)

// Several looks at a file ask only for words that are in a table of theirs, and hardly
// one word of a text is. Instead of each of them going over all tokens, those words are
// found once, when the tokens are done: by a fingerprint, which may let in some that are
// in no table, never leave out one that is.

// asker is a look that asks for words of a table.
type asker uint8

const (
	asksWired asker = 1 << iota
	asksAnswers
	asksInserted
	asksFaults
	asksCases
)

// asked are the askers of a word by its fingerprint.
var asked = func() (by [1 << 13]asker) {
	mark := func(a asker, w string) { by[wordSlot([]byte(w))] |= a }
	for w := range lifetimes {
		mark(asksWired, w)
	}
	mark(asksWired, "provide")
	for w := range answering {
		mark(asksAnswers, w)
	}
	for w := range inserters {
		mark(asksInserted, w)
	}
	mark(asksInserted, "MIDDLEWARE")
	for _, set := range []map[string]bool{raisers, raiseCalls, catchers} {
		for w := range set {
			mark(asksFaults, w)
		}
	}
	for w := range caseWords {
		mark(asksCases, w)
	}
	return by
}()

// tellingWord is a word that somebody may ask for.
type tellingWord struct {
	at int32
	by asker
}

// tellingRooms keep the room of files that were read for those still to be read.
var tellingRooms sync.Pool

// tell gathers the words of a stream that somebody may ask for.
func (s *Stream) tell() {
	if t, ok := tellingRooms.Get().(*[]tellingWord); ok {
		s.telling = (*t)[:0]
	}
	qualified := bytes.Contains(s.Src, []byte("::")) // Carp::croak is one word, and its last part is asked for
	for i := range s.Tokens {
		t := &s.Tokens[i]
		if t.Kind != Ident || t.End <= t.Start {
			continue
		}
		w := s.Src[t.Start:t.End]
		by := asked[wordSlot(w)]
		if qualified {
			if k := bytes.LastIndexByte(w, ':'); k > 0 && k+1 < len(w) {
				by |= asked[wordSlot(w[k+1:])]
			}
		}
		if t.sign == 'U' && len(w) >= 3 && string(w[:3]) == "Use" {
			by |= asksInserted
		}
		if by != 0 {
			s.telling = append(s.telling, tellingWord{int32(i), by})
		}
	}
}

// tells goes over the words that somebody may ask for, in their order.
func (s *Stream) tells(by asker, visit func(i int)) {
	for _, w := range s.telling {
		if w.by&by != 0 {
			visit(int(w.at))
		}
	}
}
