package php

import (
	"bytes"

	"jantel/core/syntax"
)

// lex makes the tokens of a PHP file: text between the PHP parts is one Text
// token, and a qualified name (\Hollin\Lots\Lot) one identifier.
func lex(src []byte) *syntax.Stream {
	b := syntax.NewBuilder(src)
	for b.Pos < len(src) && !b.Full() {
		text(b)
		code(b)
	}
	return b.Finish()
}

// text takes all up to the next part of PHP.
func text(b *syntax.Builder) {
	start, line := b.Pos, b.LineNo
	for {
		i := bytes.Index(b.Src[b.Pos:], []byte("<?"))
		if i < 0 {
			b.Pos = len(b.Src)
			break
		}
		b.Pos += i
		if b.Next("<?php") || b.Next("<?PHP") || b.Next("<?=") || !b.Next("<?xml") {
			break
		}
		b.Pos += 2
	}
	b.LineNo += bytes.Count(b.Src[start:b.Pos], []byte{'\n'})
	if b.Pos > start {
		b.Add(syntax.Text, start, line)
	}
	if b.Pos == len(b.Src) {
		return
	}
	switch {
	case b.Next("<?="):
		b.Pos += 3
	case len(b.Src)-b.Pos >= 5 && bytes.EqualFold(b.Src[b.Pos:b.Pos+5], []byte("<?php")):
		b.Pos += 5
	default:
		b.Pos += 2
	}
}

func nameStart(c byte) bool { return syntax.IsIdentStart(c) && c != '$' }
func namePart(c byte) bool  { return syntax.IsIdentPart(c) && c != '$' }

// code takes one part of PHP, up to its closing mark.
func code(b *syntax.Builder) {
	src, n := b.Src, len(b.Src)
	for b.Pos < n && !b.Full() {
		c := src[b.Pos]
		start, line := b.Pos, b.LineNo
		switch {
		case c == '\n':
			b.LineNo++
			b.Pos++
		case syntax.In(c, " \t\r"):
			b.Pos++
		case c == '?' && b.Next("?>"):
			// The mark ends a statement as a semicolon does.
			b.Pos++
			b.Add(syntax.Punct, start, line)
			b.Tokens[len(b.Tokens)-1].Kind = syntax.Newline
			b.Pos++
			return
		case nameStart(c) || c == '\\' && b.Pos+1 < n && nameStart(src[b.Pos+1]):
			b.Pos++
			for b.Pos < n && (namePart(src[b.Pos]) || src[b.Pos] == '\\' && b.Pos+1 < n && nameStart(src[b.Pos+1])) {
				b.Pos++
			}
			b.Add(syntax.Ident, start, line)
		case c == '$' && b.Pos+1 < n && nameStart(src[b.Pos+1]):
			for b.Pos++; b.Pos < n && namePart(src[b.Pos]); {
				b.Pos++
			}
			b.Add(syntax.Ident, start, line)
		case c >= '0' && c <= '9':
			b.Number()
		case c == '#' && b.Next("#["):
			b.Pos++
			b.Add(syntax.Punct, start, line)
		case c == '#', c == '/' && b.Next("//"):
			lineComment(b)
		case c == '/' && b.Next("/*"):
			b.BlockComment("/*", "*/", false)
		case syntax.In(c, "'`\""):
			if !quoted(b, c) {
				b.Misread("a string is not closed", line)
				b.Pos, b.LineNo = start+1, line
				b.Add(syntax.Punct, start, line)
			}
		case c == '<' && b.Next("<<<") && heredoc(b):
		default:
			b.Sign()
		}
	}
}

// lineComment ends with the line or with the PHP part, whichever is first.
func lineComment(b *syntax.Builder) {
	start, line := b.Pos, b.LineNo
	for b.Pos < len(b.Src) && b.Src[b.Pos] != '\n' && !b.Next("?>") {
		b.Pos++
	}
	b.Add(syntax.Comment, start, line)
}

// quoted takes a string, which may run over any number of lines. One that
// reaches the end of the file was none.
func quoted(b *syntax.Builder, q byte) bool {
	start, line := b.Pos, b.LineNo
	if b.Spent() {
		return false
	}
	for b.Pos++; b.Pos < len(b.Src); b.Pos++ {
		switch b.Src[b.Pos] {
		case '\\':
			b.Pos++
			if b.Pos < len(b.Src) && b.Src[b.Pos] == '\n' {
				b.LineNo++
			}
		case '\n':
			b.LineNo++
		case q:
			b.Pos++
			b.Add(syntax.String, start, line)
			return true
		}
	}
	b.Waste(b.Pos - start)
	return false
}

// heredoc takes <<<WORD … WORD, the closing word alone at the start of a line
// but for blanks.
func heredoc(b *syntax.Builder) bool {
	src, p := b.Src, b.Pos+3
	for p < len(src) && (syntax.In(src[p], " \t")) {
		p++
	}
	quote := byte(0)
	if p < len(src) && (syntax.In(src[p], "'\"")) {
		quote = src[p]
		p++
	}
	w := p
	for p < len(src) && namePart(src[p]) {
		p++
	}
	word := src[w:p]
	if len(word) == 0 || word[0] >= '0' && word[0] <= '9' {
		return false
	}
	if quote != 0 && (p >= len(src) || src[p] != quote) {
		return false
	}
	nl := bytes.IndexByte(src[p:], '\n')
	if nl < 0 || b.Spent() {
		return false
	}
	start, line := b.Pos, b.LineNo
	at, lines := p+nl+1, 1
	for at < len(src) {
		k := at
		for k < len(src) && (syntax.In(src[k], " \t")) {
			k++
		}
		if bytes.HasPrefix(src[k:], word) && (k+len(word) == len(src) || !namePart(src[k+len(word)])) {
			b.Pos, b.LineNo = k+len(word), line+lines
			b.Add(syntax.String, start, line)
			return true
		}
		nl := bytes.IndexByte(src[at:], '\n')
		if nl < 0 {
			break
		}
		at += nl + 1
		lines++
	}
	b.Misread("a heredoc is not closed", line)
	b.Waste(len(src) - start)
	return false
}
