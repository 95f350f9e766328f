package text

import "strings"

// runs are the letters that make a spreadsheet run what follows.
const runs = "=+-@\t\r'"

// Defused is a text that a spreadsheet shows, and does not run.
func Defused(s string) string {
	if s != "" && strings.ContainsRune(runs, rune(s[0])) {
		return "'" + s
	}
	return s
}

// Fused is the reverse of Defused.
func Fused(s string) string {
	if len(s) > 1 && s[0] == '\'' && strings.ContainsRune(runs, rune(s[1])) {
		return s[1:]
	}
	return s
}
