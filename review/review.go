// Package review holds the rules of the team's work on a codebase: findings,
// briefs and read marks. It knows neither SQL nor HTTP.
package review

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"jantel/core/model"
)

// ErrNotFound says that what was asked for is not there.
var ErrNotFound = errors.New("not found")

// ErrInvalid is wrapped by errors that say what is wrong with what was given.
var ErrInvalid = errors.New("not valid")

// Kind says how a finding is meant.
type Kind string

// The kinds of findings.
const (
	Redo    Kind = "redo"
	Fix     Kind = "fix"
	Improve Kind = "improve"
	Taste   Kind = "taste"
	Ask     Kind = "ask"
	Keep    Kind = "keep"
)

// Kinds lists the kinds from the heaviest to praise.
var Kinds = []Kind{Redo, Fix, Improve, Taste, Ask, Keep}

// State is how far a finding has come.
type State string

// The states of a finding, in the order they are passed.
const (
	Noted   State = "noted"
	Agreed  State = "agreed"
	Doing   State = "doing"
	Done    State = "done"
	Dropped State = "dropped"
)

// States lists the states in order.
var States = []State{Noted, Agreed, Doing, Done, Dropped}

// Codebase is what is reviewed.
type Codebase struct {
	ID       int64     `json:"id"`
	Name     string    `json:"name"`
	Kind     string    `json:"kind" enum:"folder,git,archive"`
	Path     string    `json:"path" doc:"where it is read from"`
	Revision string    `json:"revision" doc:"the revision asked for, empty for a folder as it is"`
	Created  time.Time `json:"created"`
}

// SurveyState is how a survey stands.
type SurveyState string

// The states of a survey.
const (
	Running     SurveyState = "running"
	Finished    SurveyState = "finished"
	Failed      SurveyState = "failed"
	Cancelled   SurveyState = "cancelled"
	Interrupted SurveyState = "interrupted"
)

// SurveyRecord is one survey as the review remembers it.
type SurveyRecord struct {
	ID       int64       `json:"id"`
	Codebase int64       `json:"codebase"`
	State    SurveyState `json:"state" enum:"running,finished,failed,cancelled,interrupted"`
	Started  time.Time   `json:"started"`
	Ended    *time.Time  `json:"ended"`
	Revision string      `json:"revision" doc:"the commit, empty when there is none"`
	Problem  string      `json:"problem" doc:"why it failed"`
	Files    int         `json:"files"`
	Lines    int         `json:"lines"`
	Seconds  float64     `json:"seconds"`
}

// Place is what a finding is tied to. Path "." is the codebase. Line 0 means
// the whole file or folder.
type Place struct {
	Path       string `json:"path"`
	Definition string `json:"definition" doc:"qualified name of the definition, empty when none"`
	Line       int    `json:"line" minimum:"0"`
	EndLine    int    `json:"end_line" minimum:"0"`
	// What later surveys need to follow the place.
	Survey int64  `json:"survey"`
	Hash   string `json:"hash" doc:"content hash of the file when it was written"`
	Quote  string `json:"quote" doc:"the lines it is about, as they stood"`
}

// Finding is one remark of the review.
type Finding struct {
	ID       int64    `json:"id"`
	Version  int64    `json:"version" doc:"raised by every change; send it back as If-Match"`
	Codebase int64    `json:"codebase"`
	Kind     Kind     `json:"kind" enum:"redo,fix,improve,taste,ask,keep"`
	State    State    `json:"state" enum:"noted,agreed,doing,done,dropped"`
	Title    string   `json:"title"`
	Text     string   `json:"text" doc:"CommonMark"`
	Assignee string   `json:"assignee"`
	Labels   []string `json:"labels"`
	Position float64  `json:"position" doc:"its rank in the order set by hand, lowest first"`
	Place    Place    `json:"place"`
	Smell    string   `json:"smell" doc:"id of the smell it came from, empty when none"`
	Rule     string   `json:"rule"`
	// What the smell was about, so that it is found again when its id changed.
	SmellPath string           `json:"smell_path"`
	SmellName string           `json:"smell_name"`
	Evidence  []model.Evidence `json:"evidence"`
	Created   time.Time        `json:"created"`
	Author    Actor            `json:"author"`
	Updated   time.Time        `json:"updated"`
	Deleted   bool             `json:"deleted"`
	// Counter is the number of the change that made it so, among all changes of
	// the codebase's findings; 0 where the finding was only looked up.
	Counter int64 `json:"counter"`
}

// Change is one field of a finding that changed.
type Change struct {
	Version int64     `json:"version"`
	At      time.Time `json:"at"`
	By      Actor     `json:"by"`
	Field   string    `json:"field"`
	Old     string    `json:"old"`
	New     string    `json:"new"`
}

// Conflict says that somebody else changed a finding first.
type Conflict struct{ Current Finding }

func (c *Conflict) Error() string {
	return fmt.Sprintf("the finding %q was changed by somebody else in the meantime", c.Current.Title)
}

// Patch is a change to some fields of a finding; nil leaves a field alone.
type Patch struct {
	Kind     *Kind     `json:"kind,omitempty" enum:"redo,fix,improve,taste,ask,keep"`
	State    *State    `json:"state,omitempty" enum:"noted,agreed,doing,done,dropped"`
	Title    *string   `json:"title,omitempty"`
	Text     *string   `json:"text,omitempty"`
	Assignee *string   `json:"assignee,omitempty"`
	Labels   *[]string `json:"labels,omitempty"`
	Position *float64  `json:"position,omitempty"`
	Deleted  *bool     `json:"deleted,omitempty"`
}

// The lengths a finding's fields may have, in bytes.
const (
	MaxTitle = 500
	MaxText  = 100_000
	MaxName  = 100
	MaxQuote = 20_000
)

// Check reports what is wrong with a finding, or nil.
func (f *Finding) Check() error {
	bad := func(format string, args ...any) error {
		return fmt.Errorf("%w: %s", ErrInvalid, fmt.Sprintf(format, args...))
	}
	f.Title = strings.TrimSpace(f.Title)
	switch {
	case f.Title == "":
		return bad("a finding needs words")
	case len(f.Title) > MaxTitle:
		return bad("the title has %d bytes, more than %d; put the rest into the text", len(f.Title), MaxTitle)
	case strings.ContainsAny(f.Title, "\n\r"):
		return bad("the title is one line")
	case len(f.Text) > MaxText:
		return bad("the text has %d bytes, more than %d", len(f.Text), MaxText)
	case !utf8.ValidString(f.Title) || !utf8.ValidString(f.Text):
		return bad("the words are not UTF-8")
	case !slices.Contains(Kinds, f.Kind):
		return bad("there is no kind %q", f.Kind)
	case !slices.Contains(States, f.State):
		return bad("there is no state %q", f.State)
	case len(f.Assignee) > MaxName:
		return bad("the name of a person has %d bytes at most", MaxName)
	case f.Place.Path == "":
		return bad("a finding needs a place")
	case f.Place.EndLine < f.Place.Line:
		return bad("the lines %d to %d run backwards", f.Place.Line, f.Place.EndLine)
	case len(f.Labels) > 30:
		return bad("a finding has 30 labels at most")
	}
	f.Assignee = strings.TrimSpace(f.Assignee)
	var labels []string
	for _, l := range f.Labels {
		l = strings.TrimSpace(strings.TrimPrefix(strings.TrimSpace(l), "#"))
		if len(l) > MaxName {
			return bad("a label has %d bytes at most", MaxName)
		}
		if l != "" && !slices.Contains(labels, l) {
			labels = append(labels, l)
		}
	}
	slices.Sort(labels)
	f.Labels = labels
	if f.Labels == nil {
		f.Labels = []string{}
	}
	if len(f.Place.Quote) > MaxQuote {
		f.Place.Quote = strings.ToValidUTF8(f.Place.Quote[:MaxQuote], "")
	}
	return nil
}

// Apply changes the fields a patch names and returns what changed.
func (f *Finding) Apply(p Patch) (changes []Change, err error) {
	old := *f
	if p.Kind != nil {
		f.Kind = *p.Kind
	}
	if p.State != nil {
		f.State = *p.State
	}
	if p.Title != nil {
		f.Title = *p.Title
	}
	if p.Text != nil {
		f.Text = *p.Text
	}
	if p.Assignee != nil {
		f.Assignee = *p.Assignee
	}
	if p.Labels != nil {
		f.Labels = *p.Labels
	}
	if p.Position != nil {
		f.Position = *p.Position
	}
	if p.Deleted != nil {
		f.Deleted = *p.Deleted
	}
	if err := f.Check(); err != nil {
		*f = old
		return nil, err
	}
	note := func(field, a, b string) {
		if a != b {
			changes = append(changes, Change{Field: field, Old: a, New: b})
		}
	}
	note("kind", string(old.Kind), string(f.Kind))
	note("state", string(old.State), string(f.State))
	note("title", old.Title, f.Title)
	note("text", old.Text, f.Text)
	note("assignee", old.Assignee, f.Assignee)
	note("labels", strings.Join(old.Labels, ", "), strings.Join(f.Labels, ", "))
	note("position", fmt.Sprint(old.Position), fmt.Sprint(f.Position))
	note("deleted", fmt.Sprint(old.Deleted), fmt.Sprint(f.Deleted))
	return changes, nil
}

// ReadMark says that a file was looked at, at a content.
type ReadMark struct {
	Path string    `json:"path"`
	Hash string    `json:"hash"`
	At   time.Time `json:"at"`
	By   Actor     `json:"by"`
}
