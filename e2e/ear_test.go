package e2e

import (
	"fmt"
	"math"
	"os"
	"path/filepath"
	"slices"
	"testing"

	"coldember/core/listen/listentest"
	"coldember/core/session"
	"coldember/e2e/harness"
	"coldember/internal/demo"
	"coldember/internal/work"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// hearing is a smith whose browser hears a sound.
func hearing(t *testing.T, s *smith, sound *listentest.Smithy) *smith {
	t.Helper()
	file := filepath.Join(t.TempDir(), "smithy.wav")
	require.NoError(t, os.WriteFile(file, sound.WAV(.2), 0o600))
	b, err := harness.NewBrowser(chromedp.Flag("use-fake-ui-for-media-stream", true), chromedp.Flag("use-fake-device-for-media-stream", true),
		chromedp.Flag("use-file-for-fake-audio-capture", file+"%noloop"), chromedp.Flag("autoplay-policy", "no-user-gesture-required"))
	require.NoError(t, err)
	t.Cleanup(b.Close)
	p, err := b.NewPage(1280, 800)
	require.NoError(t, err)
	t.Cleanup(func() { assert.Empty(t, p.Faults()); p.Close() })
	return &smith{t: t, app: s.app, Page: p}
}

// TestAHeatLogsItself: the screen hears the blows of a heat, counts them beside what was planned, and with the smith's
// leave the pause after the last of them sends the piece back; the book has what was heard and put right.
func TestAHeatLogsItself(t *testing.T) {
	const teaching, blows, fromS = 12, 9, 26
	sound := listentest.New(5, fromS+13)
	for i := range teaching {
		sound.Blow(3+.55*float64(i), 1)
	}
	for i := range blows {
		sound.Blow(fromS+.55*float64(i), 1)
	}
	sound.Tap(fromS+.55*2.5, 1.6)
	roar := sound.Roar()
	sound.Mix(roar, .25*math.Pow(10, -14./20)/listentest.RMS(roar))
	s := hearing(t, open(t), sound)
	s.goTo("/pieces/" + s.piece(demo.Samphire) + "/anvil")
	s.click("[data-testid=to-the-fire]")
	s.until("at the anvil", `document.querySelector("[data-testid=anvil]")`)
	js[bool](s, clockwork)
	s.touch(" ")
	s.skip(600)
	s.until("hot", `document.querySelector("[data-testid=anvil-left]").textContent === "Hot"`)
	s.touch(" ")
	s.until("out", `document.querySelector("[data-phase=out]")`)
	s.press("Listen for blows")
	s.press("A pause ends the step")
	s.until("it hears, and counts nothing", fmt.Sprintf(`Number(document.querySelector("[data-testid=ear-learns]")?.dataset.unsure) >= %d`, teaching))
	assert.False(t, js[bool](s, `!!document.querySelector("[data-testid=ear-blows]")`), "it does not know the anvil")
	for range max(0, js[int](s, `Number(document.querySelector("[data-testid=ear-learns]").dataset.unsure)`)-teaching) {
		js[bool](s, `(document.querySelector("[aria-label='One blow fewer']").click(), true)`)
	}
	s.press("It was 12 blows")
	s.until("it counts", `Number(document.querySelector("[data-testid=ear-blows]")?.dataset.blows) >= 16`)
	js[bool](s, `(document.querySelector("[aria-label='One blow more']").click(), true)`)
	here := js[string](s, `document.querySelector("[data-testid=anvil]").dataset.step`)
	s.until("on by itself", fmt.Sprintf(`document.querySelector("[data-testid=anvil]").dataset.step !== %q`, here))
	s.eventually("told", func() bool {
		_, events := s.fire(demo.Samphire)
		return slices.ContainsFunc(events, func(e session.Event) bool { return e.Kind == session.Back || e.Kind == session.Done })
	})
	_, events := s.fire(demo.Samphire)
	kinds := map[session.Kind]int{}
	for _, e := range events {
		kinds[e.Kind]++
		if e.Kind == session.Back || e.Kind == session.Done {
			assert.InDelta(t, teaching+blows+1, e.Blows, 2, "what was said and heard, and the one that was put right")
		}
	}
	assert.Equal(t, 1, kinds[session.FirstBlow])
	assert.GreaterOrEqual(t, kinds[session.LastBlow], 1)
	assert.Equal(t, "1", js[string](s, `localStorage.getItem("coldember.ear")`))
	assert.NotContains(t, js[string](s, `JSON.stringify(localStorage)`), "samples")
	js[bool](s, `(document.querySelector("[data-testid=ear] button").click(), true)`)
	s.until("off", `document.querySelector("[data-testid=ear]").dataset.on === "false"`)
}

// TestACaliperThatTypesIsHeard: its digits and Enter go to the station that waits, and end no step.
func TestACaliperThatTypesIsHeard(t *testing.T) {
	s := open(t)
	s.atFire(demo.Reed)
	s.touch(" ")
	s.skip(600)
	s.touch(" ")
	s.until("out", `document.querySelector("[data-phase=out]")`)
	here := js[string](s, `document.querySelector("[data-testid=anvil]").dataset.step`)
	was := js[int](s, events)
	s.keys("9999\r")
	s.until("told why not", `document.querySelector("[data-testid=mistyped]")?.textContent.includes("9999")`)
	assert.Equal(t, was, js[int](s, events), "and nothing was told of it")
	s.keys("13.62\r")
	s.until("taken", fmt.Sprintf("%s > %d", events, was))
	assert.Equal(t, here, js[string](s, `document.querySelector("[data-testid=anvil]").dataset.step`))
	s.eventually("told", func() bool {
		_, all := s.fire(demo.Reed)
		last := all[len(all)-1]
		return last.Kind == session.Read && last.Reading.Mm == 13.62 && last.Reading.AtMm > 60
	})
}

// TestInstrumentsAreLetInAndOut: in Shop one is let in, gets a key, is named, and is let in no more.
func TestInstrumentsAreLetInAndOut(t *testing.T) {
	s := open(t)
	_, err := s.app.Work.TakeToFire(t.Context(), s.piece(demo.Samphire), false)
	require.NoError(t, err)
	s.goTo("/shop")
	s.choose("access.kind", "Scale")
	s.click("[data-testid=access-add]")
	s.until("a key", `document.querySelector("[data-testid=access-key]")?.textContent.length > 20`)
	key := s.text("[data-testid=access-key]")
	a, err := s.app.Work.WhoHas(t.Context(), key, "")
	require.NoError(t, err)
	assert.Equal(t, "scale", a.Kind)
	anvil := s.window(1280, 800)
	anvil.goTo("/pieces/" + s.piece(demo.Samphire) + "/fire")
	anvil.until("at the anvil", `document.querySelector("[data-testid=anvil]")`)
	landed, err := s.app.Work.TakeLines(t.Context(), a, []work.ReadLine{{ID: "s", Seq: 1, Kind: "scale", Value: 3, Unit: "mm"}})
	require.NoError(t, err)
	assert.False(t, landed[0].Taken)
	s.until("why not", `document.querySelector("[data-access=scale]")?.textContent.includes("g, kg, oz or lb")`)
	seq := 1
	anvil.eventually("told at the anvil too, which may just have begun to listen", func() bool {
		seq++
		_, err := s.app.Work.TakeLines(t.Context(), a, []work.ReadLine{{ID: "s", Seq: seq, Kind: "scale", Value: 3, Unit: "mm"}})
		return err == nil && js[bool](anvil, `!!document.querySelector("[data-testid=not-taken]")`)
	})
	s.click("[data-testid=access-revoke]")
	s.until("gone", `!document.querySelector("[data-access=scale]")`)
	_, err = s.app.Work.WhoHas(t.Context(), key, "")
	require.ErrorIs(t, err, work.ErrNotFound)
}

// TestWhatAnInstrumentToldIsRefused at the anvil, with its name beside it.
func TestWhatAnInstrumentToldIsRefused(t *testing.T) {
	s := open(t)
	s.atFire(demo.Reed)
	s.touch(" ")
	s.skip(600)
	s.touch(" ")
	s.until("out", `document.querySelector("[data-phase=out]")`)
	a, _, err := s.app.Work.AddAccess(t.Context(), "caliper", "Blue caliper", "")
	require.NoError(t, err)
	var w work.Waiting
	s.eventually("the shop has heard of it", func() bool {
		w, err = s.app.Work.WaitingFor(t.Context())
		return err == nil && len(w.Wanted) > 0
	})
	landed, err := s.app.Work.TakeLines(t.Context(), a, []work.ReadLine{{ID: "c", Seq: 1, Kind: "caliper", Value: w.Wanted[0].Mm * 1.1, Unit: "mm"}})
	require.NoError(t, err)
	require.True(t, landed[0].Taken)
	s.until("by what", `document.querySelector("[data-testid=anvil-beside]").textContent.includes("Blue caliper")`)
	s.click("[data-testid=refuse-reading]")
	s.until("gone", `!document.querySelector("[data-testid=anvil-beside]").textContent.includes("Blue caliper")`)
	assert.Equal(t, "out", s.phase(), "and it is no touch that goes on")
}
