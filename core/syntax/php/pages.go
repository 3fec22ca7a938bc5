package php

import (
	"bytes"

	"jantel/core/model"
	"jantel/core/syntax"
)

// asked are what a page is asked with: whoever reads them answers a request.
var asked = syntax.Set("$_GET", "$_POST", "$_REQUEST", "$_FILES", "filter_input")

// writers write to the page.
var writers = syntax.Set("echo", "print", "printf")

// pages notes where a file answers requests, and where it writes elements of a
// page: between its parts of code, or from within them.
func (r *reader) pages() {
	s := r.s
	for i := range s.Tokens {
		t := &s.Tokens[i]
		switch b := s.Src[t.Start:t.End]; t.Kind {
		case syntax.Text:
			if element(b) {
				r.signs.Add(model.SignDraws, int(t.Line))
			}
		case syntax.String:
			if element(b) && (writers[string(s.Bytes(i-1))] || s.Is(i-1, "(") && writers[string(s.Bytes(i-2))]) {
				r.signs.Add(model.SignDraws, int(t.Line))
			}
		case syntax.Ident:
			if asked[string(b)] {
				r.signs.Add(model.SignHandles, int(t.Line))
			}
		}
	}
}

// element reports whether a text has an element of a page in it.
func element(b []byte) bool {
	for i := bytes.IndexByte(b, '<'); i >= 0 && i+1 < len(b); {
		if c := b[i+1] | 0x20; c >= 'a' && c <= 'z' {
			return true
		}
		next := bytes.IndexByte(b[i+1:], '<')
		if next < 0 {
			return false
		}
		i += 1 + next
	}
	return false
}
