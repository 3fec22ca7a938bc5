package review

import (
	"fmt"
	"strings"
	"time"
	"unicode/utf8"
)

// PageKind is what a page is for.
type PageKind string

// The kinds of pages.
const (
	PageGuide      PageKind = "guide"      // for newcomers: what to read and do first
	PageReport     PageKind = "report"     // the lead's verdict, and what is to be done
	PageDecision   PageKind = "decision"   // a choice, its alternatives and its reason
	PageRegrouping PageKind = "regrouping" // a draft of other homes for files and folders
)

// Page is what people write to be read: CommonMark, whose links to paths of the
// codebase lead to their places.
type Page struct {
	ID      int64     `json:"id"`
	Kind    PageKind  `json:"kind" enum:"guide,report,decision,regrouping"`
	Title   string    `json:"title"`
	Text    string    `json:"text"`
	Version int64     `json:"version" doc:"raised by every change; send it back when saving"`
	At      time.Time `json:"at" doc:"when it was last changed"`
	By      Actor     `json:"by"`
}

// Bounds of a page.
const (
	MaxPageTitle = 200
	MaxPageText  = 256 << 10
)

// CheckPage says what is wrong with a page, nil if nothing is.
func CheckPage(kind PageKind, title, text string) error {
	switch kind {
	case PageGuide, PageReport, PageDecision, PageRegrouping:
	default:
		return fmt.Errorf("%w: a page is a guide, a report, a decision or a regrouping", ErrInvalid)
	}
	switch {
	case strings.TrimSpace(title) == "":
		return fmt.Errorf("%w: a page needs a title", ErrInvalid)
	case strings.ContainsAny(title, "\r\n") || utf8.RuneCountInString(title) > MaxPageTitle:
		return fmt.Errorf("%w: a title is one line of %d signs at most", ErrInvalid, MaxPageTitle)
	case len(text) > MaxPageText:
		return fmt.Errorf("%w: a page may have %d KB at most", ErrInvalid, MaxPageText>>10)
	case !utf8.ValidString(title + text):
		return fmt.Errorf("%w: a page is text in UTF-8", ErrInvalid)
	}
	return nil
}
