package review

// Actor is who does or asks something: the name a person gave, empty where none
// was asked for yet. It tells people of one team apart and proves nothing.
type Actor string

// Sees names what an actor may see. What is made for one is handed out again
// only to those who see the same. Everybody sees all until people have rights.
func (Actor) Sees() string { return "" }
