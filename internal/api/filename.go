package api

import (
	"mime"
	"regexp"
	"strings"
	"unicode"

	"coldember/internal/text"
)

// mostFileName is how long a file's name may be before its ending, in letters.
const mostFileName = 60

// reserved are names that some systems have for something else.
var reserved = regexp.MustCompile(`(?i)^(con|prn|aux|nul|com\d|lpt\d)$`)

// named is the end of a file's name: what it is, in the language that is spoken, and its kind.
func named(what, ending string) string { return " " + text.Say("file."+what, nil) + ending }

// download names a file that is kept: after what is in it, with nothing in the name that
// any system makes something else of.
func download(name, ending string) string { return disposition("attachment", name, ending) }

// inline names a file that is shown.
func inline(name, ending string) string { return disposition("inline", name, ending) }

func disposition(how, name, ending string) string {
	clean := strings.Map(func(r rune) rune {
		if unicode.IsLetter(r) || unicode.IsDigit(r) || strings.ContainsRune(" -_()", r) {
			return r
		}
		return '-'
	}, name)
	clean = strings.Join(strings.Fields(clean), " ")
	if letters := []rune(clean); len(letters) > mostFileName {
		clean = string(letters[:mostFileName])
	}
	if clean = strings.Trim(clean, " -"); clean == "" || reserved.MatchString(clean) {
		clean = "cold-ember"
	}
	return mime.FormatMediaType(how, map[string]string{"filename": clean + ending})
}
