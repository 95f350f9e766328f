package colour

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestBlackBodies: illuminant A and the Planckian locus as the CIE tabulates them, and the candela as it was defined until 1979:
// sixty to the square centimetre of a black body where platinum freezes.
func TestBlackBodies(t *testing.T) {
	for kelvin, want := range map[float64][2]float64{2856: {.4476, .4074}, 1000: {.6528, .3444}, 1500: {.5857, .3931}, 6500: {.3135, .3237}} {
		x, y := BlackBody(kelvin).chromaticity()
		assert.InDelta(t, want[0], x, .004, "%g K", kelvin)
		assert.InDelta(t, want[1], y, .004, "%g K", kelvin)
	}
	assert.InEpsilon(t, 60e4, BlackBody(2041.4).Y, .01)
}

// TestSteelBeginsToGlowWhereDraperSaw: in the dark at about 525 °C; in a lit room later, by day later still.
func TestSteelBeginsToGlowWhereDraperSaw(t *testing.T) {
	from := func(r Room) float64 {
		for c := 300.0; c < 1200; c++ {
			if Seen(c, r).Glows {
				return c
			}
		}
		return 0
	}
	dark, lit, day := from(DarkShop), from(LitShop), from(Daylight)
	assert.InDelta(t, 525, dark, 45)
	assert.Greater(t, lit, dark+60)
	assert.Greater(t, day, lit+40)
	assert.Less(t, day, 850.0)
}

// TestHotterIsBrighterAndYellower in every room, and no colour is the same as one a hundred degrees off.
func TestHotterIsBrighterAndYellower(t *testing.T) {
	for _, r := range Rooms() {
		was, ratio := -1.0, -1.0
		for c := 600.0; c <= 1250; c += 25 {
			s := Seen(c, r)
			if !s.Glows || s.GlowCd < 3*s.GivesCd {
				continue // most of what is seen is the room's own light
			}
			light := 0.0
			for i, k := range []float64{.2126, .7152, .0722} {
				light += k * math.Pow(float64(s.RGB[i])/255, 2.2)
			}
			assert.Greater(t, light, was-.004, "%s %g", r, c) // a step of a screen
			was = light
			if c >= 950 && s.GlowCd > 30*s.GivesCd {
				yellow := float64(s.RGB[1]) / float64(s.RGB[0])
				assert.Greater(t, yellow, ratio, "%s %g", r, c)
				ratio = yellow
			}
		}
		assert.NotEqual(t, Seen(850, r).RGB, Seen(950, r).RGB)
	}
	assert.Greater(t, Seen(800, DarkShop).RGB[0], Seen(800, Daylight).RGB[2], "the same steel is red in the dark")
	assert.Greater(t, Seen(800, DarkShop).RGB[0], 100)
}

// TestTemperColoursComeInTheirOrder: straw, brown, purple, blue.
func TestTemperColoursComeInTheirOrder(t *testing.T) {
	for _, r := range []Room{LitShop, Daylight} {
		straw, purple, blue := Tempered(225, r), Tempered(282, r), Tempered(312, r)
		assert.Greater(t, straw[0], straw[2]+20, "straw is yellow: %v", straw)
		assert.Greater(t, straw[1], straw[2]+15)
		assert.Greater(t, purple[0], purple[1]+5, "purple has least green: %v", purple)
		assert.Greater(t, purple[2], purple[1]+5)
		assert.Greater(t, blue[2], blue[0]+20, "blue: %v", blue)
		pale := Tempered(195, r)
		assert.Less(t, pale[0]-pale[2], straw[0]-straw[2])
	}
	for c := 190.0; c < 360; c++ {
		assert.Greater(t, FilmNm(c+1), FilmNm(c))
	}
}

// TestAnEyeIsLearned: one that reads forty degrees low is found out, in the room where it does.
func TestAnEyeIsLearned(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 4))
	var answers []Answer
	for n := range 30 {
		for _, r := range Rooms() {
			q := Question{Say, r, 9, n}
			hot, _ := q.hot()
			off := 15 * rng.NormFloat64()
			if r == Daylight {
				off -= 40
			}
			answers = append(answers, Answer{Question: q, SaidC: math.Max(20, hot(0)+off)})
		}
	}
	eyes, err := Learn(answers)
	require.NoError(t, err)
	require.Len(t, eyes, 3)
	assert.InDelta(t, 0, eyes[0].OffK, 8)
	assert.InDelta(t, -40, eyes[2].OffK, 8)
	assert.InDelta(t, 15*fourInFive, eyes[1].SpreadK, 7)
	assert.True(t, eyes[2].Known)
	one, err := Learn(answers[:1])
	require.NoError(t, err)
	assert.False(t, one[0].Known, "one answer says nothing of an eye")
}

// TestQuestionsAreTheSameAgain, a bar that heats is held up by the transformation, and what cannot be is told.
func TestQuestionsAreTheSameAgain(t *testing.T) {
	for n := range 40 {
		for _, k := range Kinds() {
			q := Question{k, LitShop, 7, n}
			a, err := Ask(q)
			require.NoError(t, err)
			b, err := Ask(q)
			require.NoError(t, err)
			require.Equal(t, a, b)
			if k != Now {
				continue
			}
			require.Greater(t, len(a.Frames), 100)
			hot, target := q.hot()
			reaches := -1.0
			for s := 0.0; s <= framesS; s += frameS {
				require.GreaterOrEqual(t, hot(s+frameS), hot(s))
				if reaches < 0 && hot(s) >= target {
					reaches = s
				}
			}
			require.Positive(t, reaches, "it becomes as hot as is asked")
			j, err := Judge(Answer{Question: q, AtS: reaches})
			require.NoError(t, err)
			require.InDelta(t, 0, j.OffK, 6)
			late, err := Judge(Answer{Question: q, AtS: math.Min(framesS, reaches+3)})
			require.NoError(t, err)
			require.Less(t, late.OffK, j.OffK, "too late is taken for colder than it is")
		}
	}
	for _, bad := range []Answer{{}, {Question: Question{Kind: Say, Room: LitShop}, SaidC: math.NaN()}, {Question: Question{Kind: Say, Room: LitShop}, SaidC: 9000}, {Question: Question{Kind: Now, Room: DarkShop}, AtS: -1}, {Question: Question{Kind: "x", Room: LitShop}, SaidC: 500}} {
		_, err := Judge(bad)
		require.Error(t, err, bad)
	}
	_, err := Learn(make([]Answer, mostAnswers+1))
	require.Error(t, err)
	assert.True(t, Magnet(700))
	assert.False(t, Magnet(800))
}
