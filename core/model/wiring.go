package model

// Wiring says what is handed out where something is asked for: by a call of a
// container, or by a mark on a class.
type Wiring struct {
	Provides string `json:"provides"`
	For      string `json:"for"`
	Lifetime string `json:"lifetime"` // "" where it is not told
	How      string `json:"how"`
	Path     string `json:"path"`
	Line     int    `json:"line"`
}
