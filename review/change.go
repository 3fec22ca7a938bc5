package review

// Part is a part of a review that people change by itself. What is made of one
// part stays as it is when another changes.
type Part string

// The parts of a review.
const (
	PartFindings    Part = "findings"
	PartMarks       Part = "marks"       // what was looked at
	PartJudged      Part = "judged"      // brief, charter, silences, what was set by hand: what a judgement depends on
	PartArrangement Part = "arrangement" // how a hand put the boxes of drawings
	PartPictures    Part = "pictures"    // of screens, put to parts and routes
	PartPages       Part = "pages"       // that people write to be read
	PartSurveys     Part = "surveys"
)

// Happened is a change of a review as every open page hears of it: what was
// changed, by whom, and the new value where a page can put it in place.
type Happened struct {
	Codebase int64  `json:"codebase"`
	Part     Part   `json:"part" enum:"findings,marks,judged,arrangement,pictures,pages,surveys"`
	What     string `json:"what" doc:"finding, read, silence, brief, charter, overrule, arrangement or facts"`
	By       Actor  `json:"by"`
	// Finding is the finding as it is now, for a change of one.
	Finding *Finding `json:"finding,omitempty"`
	// More is by how many the findings are more for it: 1, 0 or -1.
	More int `json:"more"`
}
