package syntax

import (
	"regexp"
	"slices"
	"strings"
	"unicode"
)

// How prose is told apart. What a thing is said to be ("X is a …", "Provides …")
// is a statement; what the reader is to do, where else to look, which version
// this is, and what the law wants said, are none.
var (
	says = regexp.MustCompile(`(?i)\b(is|are) (an?|the|one|our|written|used|meant|intended|responsible)\b|` +
		`\b(this|these|the) (package|folder|director(y|ies)|module|library|project|application|app|program|tool|` +
		`plug-?in|crate|extension|service|server|client|component|website|site|theme|skin|behaviou?r|command|` +
		`class(es)?|script|repository|repo)\b.* (is|are|adds?|contains?|provides?|implements?|holds?|shows?|` +
		`uses?|stores?|creates?|allows?|lets|supports?|builds?)\b|` +
		`^\W*this (package|module|library|project|application|app|program|tool|plug-?in|crate|extension|service|component) ` +
		`\pL{3,}[^s\W]s\b|` +
		`\b(provides|implements|contains|adds support|allows you|lets you|enables|defines|manages|handles)\b`)
	obliges   = regexp.MustCompile(`(?i)\b(users?|you) (should|must|need to|have to)\b`)
	instructs = regexp.MustCompile(`(?i)^\W*(prerequisites?\b.*|first,? |then,? |now,? |next,? |just |please |simply |to \w+ .*|` +
		`if you |in order to |before |after |` +
		`once |when |you |your |we |i |it'?s |here |there |that |these |those |how |what |why |where |who |do |don'?t |let'?s |` +
		`note|notice|warning|important|caution|attention|todo|fixme|tl;?dr|update:|see |` +
		`for (an? |the |more|details|help|example|instance|further|this|these|those|other|full|complete|information|questions|` +
		`support|now|use|installation|installing|building)|also |as |` +
		`(add|build|call|change|check|choose|click|clone|compile|configure|consult|contact|copy|create|delete|disable|download|` +
		`edit|enable|ensure|enter|execute|extract|fetch|follow|get|go|install|join|launch|look|make|move|open|put|read|refer|` +
		`remember|remove|replace|report|restart|run|select|send|set|start|stop|submit|switch|take|try|turn|type|unpack|unzip|` +
		`update|upgrade|use|visit|wait|write) )`)
	legal = regexp.MustCompile(`(?i)licen[cs]e|copyright|\(c\)|©|warranty|redistribut|permission|all rights|trademark|` +
		`^\W*authors?\b`)
	credits   = regexp.MustCompile(`(?i)\b(contributed|maintained|written|authors?) by\b`)
	elsewhere = regexp.MustCompile(`(?i)\b(documentation|docs|manual|information|details|instructions|changelog|wiki)\b.*\b(at|in|on|see|` +
		`found|available|online|from)\b|\bhas (been )?moved\b|\bno longer\b|\bdeprecated\b|\barchived\b|\bread ?me\b|` +
		`^\W*(welcome|this (file|document|page))\b|\bbootstrapped with\b|\bgenerated (with|by)\b|` +
		`\badd your (description|text)\b|\bshort description\b|\blorem ipsum\b`)
	// partly is what tells of a part, of what became of a thing or of how its folders lie.
	partly = regexp.MustCompile(`(?i)^\W*(added|fixed|changed|removed|improved|updated|renamed|contents of|` +
		`this (mode|option|setting|function|feature|chapter|section)) |\bdirectory (tree|layout|structure)\b|` +
		`\bfollows the .*\bpolic|\bis updated (for|to)\b`)
	version  = regexp.MustCompile(`(?i)\b(version|release[ds]?|v)\b[^.]*\d|\d+\.\d+[^.]*\breleased\b|^\W*(\pL+ )?v?\d+(\.\d+)+\W*$`)
	bulleted = regexp.MustCompile(`^([*+•–-]|\(?[0-9a-z][.)]|o ) ?\S`)
	address  = regexp.MustCompile(`\S+://\S+|\S+@\S+\.\S+`)
	sentence = regexp.MustCompile(`[.!?](?:["')\]]*)(?:\s+|$)`)
)

// Statement is a paragraph from its first sentence that says what a thing is;
// "" where there is none. firm tells that it says so in so many words.
func Statement(paragraph string) (text string, firm bool) {
	rest := strings.TrimSpace(paragraph)
	for i := 0; rest != "" && i < 6 && !bulleted.MatchString(rest); i++ {
		end := len(rest)
		if at := sentence.FindStringIndex(rest); at != nil {
			end = at[1]
		}
		one := strings.TrimSpace(rest[:end])
		if tellsToDo(one) {
			return "", false // what follows is about what is to be done
		}
		if states(one) {
			return whole(stating(rest)), isSaid(one)
		}
		rest = strings.TrimSpace(rest[end:])
	}
	return "", false
}

// The expressions above are slow, and nearly every sentence has nothing for them:
// plain words, of which all that they match holds one, are looked for first.
var (
	obligeWords = []string{"should", "must", "need to", "have to"}
	saidWords   = []string{"is ", "are ", "these", "the ", "provides", "implements", "contains", "adds support", "allows you",
		"lets you", "enables", "defines", "manages", "handles"}
	lawWords    = []string{"licen", "copyright", "(c)", "©", "warranty", "redistribut", "permission", "all rights", "trademark", "author"}
	peopleWords = []string{" by"}
	awayWords   = []string{"documentation", "docs", "manual", "information", "details", "instructions", "changelog", "wiki", "moved",
		"no longer", "deprecated", "archived", "read", "welcome", "this", "bootstrapped", "generated", "add your", "description", "lorem"}
	partlyWords  = []string{"ed ", "contents", "this", "directory", "polic"}
	versionWords = []string{"version", "release", "v", "."}
)

// holds reports whether a text holds one of some words, which are in small letters.
func holds(text string, words []string) bool {
	text = strings.ToLower(text)
	return slices.ContainsFunc(words, func(w string) bool { return strings.Contains(text, w) })
}

// CountWords counts words of two letters and more, up to as many as are asked for.
func CountWords(text string, most int) (n int) {
	letters := 0
	for _, r := range text {
		if !unicode.IsLetter(r) {
			letters = 0
			continue
		}
		if letters++; letters == 2 {
			if n++; n == most {
				return n
			}
		}
	}
	return n
}

// instructing are the words that what instructs begins with; some of them go on.
var instructing = Set(strings.Fields(`prerequisite first then now next just please simply to if in before after once when
		you your we i it its here
		there that these those how what why where who do don dont let lets note notice warning important caution attention todo
		fixme tl tldr update see for also
		as add build call change check choose click clone compile configure consult contact copy create delete disable download edit
		enable ensure enter execute extract fetch follow get go install join launch look make move open put read refer remember remove replace
		report restart run select send set start stop submit switch take try turn type unpack unzip upgrade use visit wait write`)...)

// goesOn are those of them that a longer word may begin with: "notes", "warnings".
var goesOn = []string{"prerequisite", "note", "notice", "warning", "important", "caution", "attention", "todo", "fixme"}

// mayInstruct reports whether a sentence begins with a word of those that what instructs
// does.
func mayInstruct(s string) bool {
	s = strings.TrimLeftFunc(s, func(r rune) bool { return r != '_' && !unicode.IsDigit(r) && !unicode.IsLetter(r) })
	end := strings.IndexFunc(s, func(r rune) bool { return !unicode.IsLetter(r) })
	if end < 0 {
		end = len(s)
	}
	word := strings.ToLower(s[:end])
	return instructing[word] || slices.ContainsFunc(goesOn, func(w string) bool { return strings.HasPrefix(word, w) })
}

// tellsToDo reports whether a sentence says what is to be done.
func tellsToDo(s string) bool {
	return mayInstruct(s) && instructs.MatchString(s) || holds(s, obligeWords) && obliges.MatchString(s)
}

// isSaid reports whether a sentence says in so many words what a thing is.
func isSaid(s string) bool { return holds(s, saidWords) && says.MatchString(s) }

func ofLaw(s string) bool { return holds(s, lawWords) && legal.MatchString(s) }

func ofPeople(s string) bool { return holds(s, peopleWords) && credits.MatchString(s) }

// leadsElsewhere reports whether a sentence says where else to look.
func leadsElsewhere(s string) bool {
	return holds(s, awayWords) && elsewhere.MatchString(s) || holds(s, partlyWords) && partly.MatchString(s)
}

// stating is a text up to its first sentence that says what is to be done, or
// where else to look.
func stating(text string) string {
	from := 0
	for _, at := range sentence.FindAllStringIndex(text, 12) {
		if one := text[from:at[1]]; from > 0 && (tellsToDo(one) || leadsElsewhere(one)) {
			return strings.TrimSpace(text[:from])
		}
		from = at[1]
	}
	if from > 0 && from < len(text) && (tellsToDo(text[from:]) || leadsElsewhere(text[from:])) {
		return strings.TrimSpace(text[:from])
	}
	return text
}

// whole is a text without a last sentence that leads on to a list.
func whole(text string) string {
	if !strings.HasSuffix(text, ":") {
		return text
	}
	last := 0
	for _, at := range sentence.FindAllStringIndex(text, -1) {
		last = at[1]
	}
	return strings.TrimSpace(text[:last])
}

// states reports whether a sentence that tells nobody what to do may say what a
// thing is. What costs least is asked first: few sentences get to the end.
func states(s string) bool {
	if strings.HasSuffix(s, ":") || strings.HasSuffix(s, "?") {
		return false
	}
	words := CountWords(unaddressed(s), 4)
	if words < 2 || words == 2 && !strings.HasSuffix(s, ".") {
		return false
	}
	return !ofLaw(s) && !leadsElsewhere(s) && (!ofVersion(s) && !ofPeople(s) || isSaid(s))
}

// unaddressed is a text without addresses.
func unaddressed(s string) string {
	if !strings.Contains(s, "://") && !strings.Contains(s, "@") {
		return s
	}
	return address.ReplaceAllString(s, "")
}

// ofVersion reports whether a text speaks of a version, which has a figure.
func ofVersion(s string) bool {
	return strings.ContainsAny(s, "0123456789") && holds(s, versionWords) && version.MatchString(s)
}

// Describes reports whether a text that stands where a description is asked for
// is one: several words that speak of no law, version or other place.
func Describes(text string) bool {
	return CountWords(unaddressed(text), 4) > 2 && !ofLaw(text) &&
		!ofPeople(text) && !leadsElsewhere(text) &&
		!ofVersion(text) && !strings.HasSuffix(text, "?")
}

// Title reports whether a line stands alone like a heading: no full stop, and
// hardly a word more than a name takes.
func Title(line string) bool {
	if strings.HasSuffix(line, ".") || isSaid(line) {
		return false
	}
	return len(strings.Fields(line)) <= 6
}
