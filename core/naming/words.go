// Package naming takes names apart into words and tells how they are cased.
package naming

import (
	"path"
	"regexp"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Words splits a name at signs, digits and changes of case, in lower case:
// "seedLotHTTPView2" gives seed, lot, http, view, 2.
func Words(name string) []string {
	// Names without letters beyond ASCII, which nearly all are, are cut in place, in one
	// pass: half of what is judged asks for words.
	var room [64]byte
	small, capitals := room[:0], false
	for i := 0; i < len(name); i++ {
		c := name[i]
		if c >= utf8.RuneSelf {
			return wordsOf(name)
		}
		if kinds[c] == aCapital {
			c, capitals = c+'a'-'A', true
		}
		small = append(small, c)
	}
	lower := name
	if capitals {
		lower = string(small)
	}
	out := make([]string, 0, 4)
	from, before := 0, byte(aSign)
	for i := 0; i < len(name); i++ {
		here := kinds[name[i]]
		if here == before && here != aCapital {
			continue // nearly always
		}
		if before != aSign && (here == aSign || begins(name, i, before, here)) {
			out, from = append(out, lower[from:i]), i
		}
		if before == aSign {
			from = i
		}
		before = here
	}
	if before != aSign {
		out = append(out, lower[from:])
	}
	if len(out) == 0 {
		return nil
	}
	return out
}

// The kinds of bytes in a name.
const (
	aSign = iota
	aDigit
	aCapital
	aSmall
)

var kinds = func() (out [256]byte) {
	for c := range out {
		switch {
		case c >= '0' && c <= '9':
			out[c] = aDigit
		case c >= 'A' && c <= 'Z':
			out[c] = aCapital
		case c >= 'a' && c <= 'z':
			out[c] = aSmall
		}
	}
	return out
}()

// begins reports whether a word begins at i, behind another: digits behind
// letters, letters behind digits, a capital behind a small letter, and the last
// of several capitals where a small letter follows.
func begins(name string, i int, before, here byte) bool {
	switch here {
	case aDigit:
		return before != aDigit
	case aCapital:
		return before != aCapital || i+1 < len(name) && kinds[name[i+1]] == aSmall
	}
	return before == aDigit
}

func wordsOf(name string) []string {
	var out []string
	var word []rune
	flush := func() {
		if len(word) > 0 {
			out = append(out, strings.ToLower(string(word)))
			word = word[:0]
		}
	}
	runes := []rune(name)
	for i, r := range runes {
		switch {
		case unicode.IsDigit(r):
			if len(word) > 0 && !unicode.IsDigit(word[len(word)-1]) {
				flush()
			}
			word = append(word, r)
		case !unicode.IsLetter(r):
			flush()
		case unicode.IsUpper(r):
			next := i+1 < len(runes) && unicode.IsLower(runes[i+1])
			if len(word) > 0 && (!unicode.IsUpper(word[len(word)-1]) || next) {
				flush()
			}
			word = append(word, r)
		default:
			if len(word) > 0 && unicode.IsDigit(word[len(word)-1]) {
				flush()
			}
			word = append(word, r)
		}
	}
	flush()
	return out
}

// Stem is a file's name without its endings: "seed-lot.test.ts" gives
// "seed-lot", ".eslintrc.json" gives ".eslintrc".
func Stem(p string) string {
	b := path.Base(p)
	lead := ""
	if strings.HasPrefix(b, ".") {
		lead, b = ".", b[1:]
	}
	s, _, _ := strings.Cut(b, ".")
	return lead + s
}

// Case is a way of writing names of several words.
type Case string

// The cases told apart. Plain names of one small word fit all but Pascal.
const (
	Plain  Case = "one word"
	Kebab  Case = "kebab-case"
	Snake  Case = "snake_case"
	Camel  Case = "camelCase"
	Pascal Case = "PascalCase"
	Caps   Case = "CAPITALS"
	Mixed  Case = "mixed"
)

// CaseOf tells how a name is written.
func CaseOf(name string) Case {
	var upper, lower, dash, under bool
	for i, r := range name {
		switch {
		case unicode.IsUpper(r):
			upper = true
		case unicode.IsLower(r):
			lower = true
		case r == '-':
			dash = i > 0
		case r == '_':
			under = under || i > 0
		}
	}
	first := []rune(name + " ")[0]
	switch {
	case dash && under, dash && upper && lower, under && upper && lower:
		return Mixed
	case upper && !lower && len([]rune(name)) > 1:
		return Caps
	case dash:
		return Kebab
	case under:
		return Snake
	case unicode.IsUpper(first):
		return Pascal
	case upper:
		return Camel
	}
	return Plain
}

// Number splits a name that ends in digits; ok is false where there are none
// or where they belong to the word ("utf8", "sha256").
func Number(name string) (base, digits string, ok bool) {
	i := len(name)
	for i > 0 && name[i-1] >= '0' && name[i-1] <= '9' {
		i--
	}
	if i == len(name) || i == 0 {
		return "", "", false
	}
	base = strings.TrimRight(name[:i], "-_ ")
	w := Words(base)
	if len(w) == 0 {
		return "", "", false
	}
	if numbered[w[len(w)-1]+name[i:]] || numberedStem[w[len(w)-1]] || len(name)-i > 2 {
		return "", "", false
	}
	return base, name[i:], true
}

// numbered are words that end in digits by nature.
var numbered = set(`utf8 utf16 utf32 base64 base32 base16 base58 sha1 sha2 sha3 md4 md5
	http1 http2 http3 ipv4 ipv6 ip4 ip6 x86 es5 es6 mp3 mp4 h264
	oauth1 oauth2 s3 ec2
	k8 e2 log2 log10 log1 exp2 atan2 int8 int16 int32 int64 uint8 uint16 uint32 uint64 float16
	float32 float64 crc32 crc64 web3 pg3 css3
	html5 tls12 tls13 p256 p384 p521 win32 amd64 arm64 arm32 mips64 ppc64 vec2
	vec3 vec4 mat2 mat3 mat4 vector2 vector3 point2 point3 latin1 ucs2 ucs4 j2 py2 py3
	python2 python3 lz4 bz2 sqlite3 neo4 ed25519 x509 iso8601 rfc3339 co2
	pkcs1 pkcs5 pkcs7 pkcs8 pkcs11 pkcs12 h2 d3 t1 level1 level2`)

// numberedStem are words after which a number counts a version or a size.
var numberedStem = set(
	"v version rfc iso sha md utf tls ssl sse avx level layer stage phase step day week year q quarter rev x y z i j k n p",
)

func set(s string) map[string]bool {
	m := map[string]bool{}
	for _, w := range strings.Fields(s) {
		m[w] = true
	}
	return m
}

// Own is a definition's own name, without the package or namespace that stands
// before it in languages that write it so: "weigh" of "Vault::Lots::weigh".
func Own(name string) string {
	for _, sep := range []string{"::", "\\", "."} {
		if i := strings.LastIndex(name, sep); i >= 0 && i+len(sep) < len(name) {
			name = name[i+len(sep):]
		}
	}
	return name
}

// singulars are words of programs that follow none of the common endings: those
// that end like a plural and are none, and plurals of their own.
var singulars = map[string]string{
	"species": "species", "series": "series", "news": "news", "lens": "lens", "canvas": "canvas", "alias": "alias", "bias": "bias",
	"atlas": "atlas", "gas": "gas", "chaos": "chaos", "https": "https", "dns": "dns", "aws": "aws", "ios": "ios", "macos": "macos",
	"sms": "sms", "gps": "gps", "tls": "tls", "canvases": "canvas", "aliases": "alias", "statuses": "status", "buses": "bus",
	"movies": "movie", "cookies": "cookie", "indices": "index", "vertices": "vertex", "matrices": "matrix", "children": "child",
	"people": "person", "axes": "axis", "analyses": "analysis", "caches": "cache",
}

// disciplines are words in -ics that name a field and have no singular.
var disciplines = regexp.MustCompile(`(?:graph|phys|mathemat|statist|analyt|mechan|electron|robot|^opt|acoust|dynam|kinemat|genet|` +
	`diagnost|logist|econom|^eth|aesthet|semant|phonet|linguist|polit|athlet|gymnast|ergonom|^bas)ics$`)

// Singular is a word in the singular, by the common endings of English.
func Singular(w string) string {
	if one, ok := singulars[w]; ok {
		return one
	}
	switch n := len(w); {
	case strings.HasSuffix(w, "ics") && disciplines.MatchString(w), n > 5 && endsIn(w, "atlas", "canvas", "alias"):
		return w
	case n > 4 && strings.HasSuffix(w, "ies"):
		return w[:n-3] + "y"
	case n > 4 && endsIn(w, "sses", "shes", "ches", "xes"):
		return w[:n-2]
	case n > 4 && strings.HasSuffix(w, "ves") && !endsIn(w, "ives", "aves", "oves"):
		return w[:n-3] + "f"
	case n > 3 && strings.HasSuffix(w, "s") && !endsIn(w, "ss", "us", "is"):
		return w[:n-1]
	}
	return w
}

func endsIn(w string, endings ...string) bool {
	for _, e := range endings {
		if strings.HasSuffix(w, e) {
			return true
		}
	}
	return false
}
