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

var byFirst syntax.ByFirst[*syntax.Builder]

func init() {
	byFirst.OnWords(func(b *syntax.Builder) { name(b) })
	byFirst.On("\n", func(b *syntax.Builder) { b.LineNo++; b.Pos++ })
	byFirst.On(" \t\r", func(b *syntax.Builder) { b.Pos++ })
	byFirst.On("\\$", func(b *syntax.Builder) {
		if b.Pos+1 >= len(b.Src) || !nameStart(b.Src[b.Pos+1]) {
			b.Sign()
			return
		}
		if b.Src[b.Pos] == '\\' {
			name(b)
		} else {
			variable(b)
		}
	})
	byFirst.On(syntax.Digits, func(b *syntax.Builder) { b.Number() })
	byFirst.On("#", func(b *syntax.Builder) {
		if !b.Next("#[") {
			lineComment(b)
			return
		}
		b.Pos++
		b.Add(syntax.Punct, b.Pos-1, b.LineNo)
	})
	byFirst.On("/", func(b *syntax.Builder) {
		switch {
		case b.Next("//"):
			lineComment(b)
		case b.Next("/*"):
			b.BlockComment("/*", "*/", false)
		default:
			b.Sign()
		}
	})
	byFirst.On("'`\"", func(b *syntax.Builder) {
		if start, line := b.Pos, b.LineNo; !quoted(b, b.Src[start]) {
			b.Misread("a string is not closed", line)
			b.Pos, b.LineNo = start+1, line
			b.Add(syntax.Punct, start, line)
		}
	})
	byFirst.On("<", func(b *syntax.Builder) {
		if !b.Next("<<<") || !heredoc(b) {
			b.Sign()
		}
	})
}

// code takes one part of PHP, up to its closing mark.
func code(b *syntax.Builder) {
	for b.Pos < len(b.Src) && !b.Full() {
		if b.Next("?>") {
			// The mark ends a statement as a semicolon does.
			b.Pos++
			b.Add(syntax.Punct, b.Pos-1, b.LineNo)
			b.Last().Kind = syntax.Newline
			b.Pos++
			return
		}
		if read := byFirst[b.Src[b.Pos]]; read != nil {
			read(b)
			continue
		}
		b.Sign()
	}
}

// name takes a name with its namespaces.
func name(b *syntax.Builder) {
	src, start := b.Src, b.Pos
	for b.Pos++; b.Pos < len(src); b.Pos++ {
		if !namePart(src[b.Pos]) && !(src[b.Pos] == '\\' && b.Pos+1 < len(src) && nameStart(src[b.Pos+1])) {
			break
		}
	}
	b.Add(syntax.Ident, start, b.LineNo)
}

func variable(b *syntax.Builder) {
	start := b.Pos
	for b.Pos++; b.Pos < len(b.Src) && namePart(b.Src[b.Pos]); {
		b.Pos++
	}
	b.Add(syntax.Ident, start, b.LineNo)
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
	src := b.Src
	word, p := heredocWord(src, b.Pos+3)
	if len(word) == 0 || word[0] >= '0' && word[0] <= '9' || b.Spent() {
		return false
	}
	nl := bytes.IndexByte(src[p:], '\n')
	if nl < 0 {
		return false
	}
	start, line := b.Pos, b.LineNo
	for at, lines := p+nl+1, 1; at < len(src); lines++ {
		k := blanks(src, at)
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
	}
	b.Misread("a heredoc is not closed", line)
	b.Waste(len(src) - start)
	return false
}

// heredocWord is the word at p, which may be quoted, and where it ends; none
// where its quote is not closed.
func heredocWord(src []byte, p int) (word []byte, end int) {
	p = blanks(src, p)
	quote := byte(0)
	if p < len(src) && syntax.In(src[p], "'\"") {
		quote = src[p]
		p++
	}
	w := p
	for p < len(src) && namePart(src[p]) {
		p++
	}
	if quote != 0 && (p >= len(src) || src[p] != quote) {
		return nil, p
	}
	return src[w:p], p
}

// blanks steps over those at p.
func blanks(src []byte, p int) int {
	for p < len(src) && syntax.In(src[p], " \t") {
		p++
	}
	return p
}
