package syntax

import (
	"strings"

	"jantel/core/model"
)

// lifetimes are the calls of containers that say for how long what they hand out
// lives.
var lifetimes = map[string]string{
	"AddScoped": "scoped", "AddTransient": "transient", "AddSingleton": "singleton", "TryAddScoped": "scoped",
	"TryAddTransient": "transient", "TryAddSingleton": "singleton", "AddHostedService": "singleton", "AddDbContext": "scoped",
	"bind": "transient", "singleton": "singleton", "scoped": "scoped", "bindIf": "transient", "singletonIf": "singleton",
}

// wired finds what calls hand out for what is asked for: AddScoped<A, B>(…),
// bind(A::class, B::class), and { provide: A, useClass: B }.
func wired(f *model.Facts, s *Stream) {
	s.tells(asksWired, func(i int) {
		switch b := s.Bytes(i); {
		case len(f.Wired) >= maxWired:
		case string(b) == "provide" && s.Match(i+1, ":", Name, ","):
			provided(f, s, i)
		case lifetimes[string(b)] == "" || !s.Any(i-1, ".", ">", ":"):
		case s.Match(i+1, "<", Name):
			generic(f, s, i)
		case s.Match(i+1, "(", Name, ":", ":", "class"):
			byClass(f, s, i)
		}
	})
}

// maxWired bounds what is kept of one file.
const maxWired = 2000

// generic reads "AddScoped<A, B>(" and "AddScoped<A>(".
func generic(f *model.Facts, s *Stream, i int) {
	name := s.Text(i)
	asked, k := nameWithDots(s, i+2)
	gives := asked
	if s.Is(k, ",") {
		gives, k = nameWithDots(s, k+1)
	}
	if !s.Match(k, ">", "(") {
		return
	}
	if gives == asked && !s.Is(k+2, ")") {
		gives = made(s, k+1) // by a function; what that calls is not told
	}
	f.Wired = append(f.Wired, model.WiredFact{Provides: gives, For: asked, Lifetime: lifetimes[name], How: name, Line: s.Line(i)})
}

// made is the class that a function in the parentheses at open builds, where it
// builds one alone.
func made(s *Stream, open int) (class string) {
	for k := open + 1; k < s.Close(open); k++ {
		if s.Is(k, "new") && s.IsIdent(k+1) {
			if class != "" {
				return ""
			}
			class, _ = nameWithDots(s, k+1)
		}
	}
	return class
}

// nameWithDots reads "A.B" and gives what stands behind it.
func nameWithDots(s *Stream, i int) (string, int) {
	if !s.IsIdent(i) {
		return "", i
	}
	name := s.Text(i)
	for i++; s.Is(i, ".") && s.IsIdent(i+1); i += 2 {
		name += "." + s.Text(i+1)
	}
	return name, i
}

// byClass reads "bind(A::class, B::class)"; with one name it stands for itself.
func byClass(f *model.Facts, s *Stream, i int) {
	name := s.Text(i)
	w := model.WiredFact{For: strings.TrimPrefix(s.Text(i+2), `\`), Lifetime: lifetimes[name], How: name, Line: s.Line(i)}
	switch k := i + 6; {
	case s.Is(k, ")"):
		w.Provides = w.For
	case s.Match(k, ",", Name, ":", ":", "class"):
		w.Provides = strings.TrimPrefix(s.Text(k+1), `\`)
	case s.Is(k, ","):
		w.Provides = made(s, i+1)
	default:
		return
	}
	f.Wired = append(f.Wired, w)
}

// provided reads "provide: A, useClass: B".
func provided(f *model.Facts, s *Stream, i int) {
	w := model.WiredFact{For: s.Text(i + 2), How: "provide", Line: s.Line(i)}
	switch k := i + 4; {
	case s.Any(k, "useClass", "useExisting") && s.Match(k+1, ":", Name):
		w.Provides = s.Text(k + 2)
	case !s.Any(k, "useFactory", "useValue"):
		return
	}
	f.Wired = append(f.Wired, w)
}
