package store

import (
	"jantel/core/model"
)

//go:generate go tool msgp -file manifest.go -o manifest_packed.go -io=false -tests=false -unexported

//msgp:tuple manifest manifestFile
//msgp:limit arrays:10000000 maps:1000

// manifest is a survey as it is stored: the facts of its files are stored by
// content, once for all surveys.
type manifest struct {
	Codebase   string
	Origin     model.Origin
	SurveyedAt int64 // milliseconds since 1970
	Files      []manifestFile
	Links      []model.Link
	External   []model.External
	Unresolved []model.Unresolved
	Twins      []model.Twins
	Notes      []model.Note
	History    *model.History
	Timings    map[string]float64
}

type manifestFile struct {
	Path     string
	Language string
	Hash     string
	Bytes    int64
	Skipped  string
	Key      string // of its facts, "" when it was not read
}
