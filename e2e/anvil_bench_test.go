package e2e

import (
	"context"
	"fmt"
	"slices"
	"testing"
	"time"

	"coldember/core/session"
	"coldember/internal/demo"

	"github.com/stretchr/testify/require"
)

// stamped notes, on a page, when each event was first shown.
const stamped = `(() => {
	window.shownAt = {};
	const look = () => { const n = document.querySelector("[data-testid=anvil]")?.dataset.events; if (n && !window.shownAt[n]) window.shownAt[n] = performance.timeOrigin + performance.now(); };
	new MutationObserver(look).observe(document.body, { subtree: true, childList: true, attributes: true, attributeFilter: ["data-events"] });
	return true;
})()`

// BenchmarkEventToScreen is how long an event takes from being told to a server to being shown
// on a screen: the median and the 95th of a hundred, ms.
func BenchmarkEventToScreen(b *testing.B) {
	s := open(b)
	s.goTo("/pieces/" + s.piece(demo.Reed) + "/fire")
	s.until("at the anvil", `document.querySelector("[data-testid=anvil]")`)
	js[bool](s, stamped)
	f, err := s.app.Work.FireOf(context.Background(), s.piece(demo.Reed))
	require.NoError(b, err)
	for b.Loop() {
		var took []float64
		for i := range 100 {
			now := time.Now()
			heard, err := s.app.Work.Tell(context.Background(), f.ID, now.UnixMilli(), []session.Event{{
				ID: fmt.Sprintf("bench-%d-%d", now.UnixNano(), i), Device: "bench", Seq: i + 1, AtMs: now.UnixMilli(), Kind: session.Noted, Text: "x",
			}})
			require.NoError(b, err)
			at := 0.0
			s.until("shown", fmt.Sprintf("window.shownAt[%d]", heard.Count))
			at = js[float64](s, fmt.Sprintf("window.shownAt[%d]", heard.Count))
			took = append(took, at-float64(now.UnixNano())/1e6)
		}
		slices.Sort(took)
		b.ReportMetric(took[50], "ms-median")
		b.ReportMetric(took[95], "ms-p95")
	}
}

// BenchmarkAnvilOf10000Events is how long a session of ten thousand events takes from being asked for to
// being shown.
func BenchmarkAnvilOf10000Events(b *testing.B) {
	s := open(b)
	f, err := s.app.Work.FireOf(context.Background(), s.piece(demo.Reed))
	require.NoError(b, err)
	var events []session.Event
	for i := range 10_000 {
		events = append(events, session.Event{
			ID: fmt.Sprintf("bench-%d", i), Device: "bench", Seq: i + 1, AtMs: time.Now().UnixMilli() + int64(i)*1000,
			Kind: []session.Kind{session.Out, session.FirstBlow, session.LastBlow, session.NotYet}[i%4],
		})
	}
	for part := range slices.Chunk(events, 2000) {
		_, err := s.app.Work.Tell(context.Background(), f.ID, 0, part)
		require.NoError(b, err)
	}
	s.goTo("/pieces/" + s.piece(demo.Samphire) + "/log")
	s.until("there", `document.querySelector("[data-testid=log-empty]")`)
	js[bool](s, stamped)
	for b.Loop() {
		js[bool](s, `(window.shownAt = {}, true)`)
		began := js[float64](s, fmt.Sprintf(`(() => { history.pushState({}, "", "/pieces/%s/fire"); dispatchEvent(new PopStateEvent("popstate")); return performance.timeOrigin + performance.now(); })()`, s.piece(demo.Reed)))
		s.until("all of it", `Number(document.querySelector("[data-testid=anvil]")?.dataset.events) >= 10000`)
		b.ReportMetric(js[float64](s, "Math.min(...Object.values(window.shownAt))")-began, "ms-shown")
		js[bool](s, fmt.Sprintf(`(() => { history.pushState({}, "", "/pieces/%s/log"); dispatchEvent(new PopStateEvent("popstate")); return true; })()`, s.piece(demo.Samphire)))
		s.until("left", `document.querySelector("[data-testid=log-empty]")`)
	}
}
