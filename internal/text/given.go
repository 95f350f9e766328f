package text

import (
	"regexp"
	"strings"
	"sync"
)

// given are the families of codes that name things which the program made by itself.
var given = []string{"starter.", "shop.ownHand", "shop.newSmith", "hammer.", "hearth.", "tongs.", "bath.", "oven.", "block."}

// mark begins a name that is stored as a code.
const mark = "#"

// codesOf are the codes of the names given in each language, by those names. Where two are alike
// the first of them by its code stands for both, in that language.
var codesOf = sync.OnceValue(func() map[string]map[string]string {
	out := map[string]map[string]string{}
	for language, words := range catalogues {
		out[language] = map[string]string{}
		for _, code := range Codes() {
			name := words[code]
			if name == "" || !isGiven(code) || out[language][name] != "" {
				continue
			}
			out[language][name] = code
		}
	}
	return out
})

func isGiven(code string) bool {
	for _, family := range given {
		if strings.HasPrefix(code, family) {
			return true
		}
	}
	return false
}

// counting is the number behind a name that another one has already.
var counting = regexp.MustCompile(`^(.*?)( \d{1,4})?$`)

// Coded is a name as it is stored: that of a given thing in this language, its number behind it or
// not, is its code; any other stands as it is.
func Coded(name, language string) string {
	parts := counting.FindStringSubmatch(name)
	if parts == nil {
		return name
	}
	for _, p := range [][2]string{{name, ""}, {parts[1], parts[2]}} {
		if code := codesOf()[language][p[0]]; code != "" {
			return mark + code + p[1]
		}
	}
	return name
}

// Named is a stored name in the language that is spoken.
func Named(stored string) string {
	rest, ok := strings.CutPrefix(stored, mark)
	if !ok {
		return stored
	}
	code, number, counted := strings.Cut(rest, " ")
	name, ok := words(code)
	if !ok || !isGiven(code) {
		return stored
	}
	if counted {
		name += " " + number
	}
	return name
}
