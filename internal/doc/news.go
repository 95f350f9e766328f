package doc

import "strconv"

// NewestNews counts what was told to be new so far: news.1, news.2 and so on in the catalogue. A
// shop that was made by now has nothing to be told.
const NewestNews = 10

// WalkSteps are those of the first walk: a knife, its bar, its heats, practice, the fire.
const WalkSteps = 5

// News are the codes of what this shop was not told yet, the newest first.
func (s *Shop) News() []string {
	out := []string{}
	for n := NewestNews; n > s.NewsSeen && n > 0; n-- {
		out = append(out, "news."+strconv.Itoa(n))
	}
	return out
}
