package naming

import "strconv"

// Figure writes a number as sentences show it: with a comma between thousands.
func Figure(n int) string { return Digits(strconv.Itoa(n)) }

// Digits parts a number that is written already at its thousands.
func Digits(n string) string {
	sign := ""
	if n != "" && n[0] == '-' {
		sign, n = n[:1], n[1:]
	}
	for i := len(n) - 3; i > 0; i -= 3 {
		n = n[:i] + "," + n[i:]
	}
	return sign + n
}
