package e2e

import (
	"testing"

	"coldember/internal/demo"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/performance"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// scrub goes through the heats and back, one a frame, and answers how many
// frames it took.
const scrub = `new Promise(done => {
	const frames = 240, last = document.querySelectorAll("[data-heat]").length;
	let n = 0;
	const step = () => {
		window.dispatchEvent(new KeyboardEvent("keydown", {key: Math.floor(n / (last - 1)) % 2 ? "[" : "]", bubbles: true}));
		if (++n < frames) requestAnimationFrame(step);
		else requestAnimationFrame(() => done(n));
	};
	window.dispatchEvent(new KeyboardEvent("keydown", {key: "]", bubbles: true}));
	requestAnimationFrame(step);
})`

// BenchmarkScrub reports the script time of a frame while the heats are gone
// through, and all the work of that frame (script, style, layout).
func BenchmarkScrub(b *testing.B) {
	s := open(b)
	s.bench(demo.Rigging, "heats")
	_, err := chromedp.Call(s.Ctx, performance.Enable, performance.EnableParams{})
	require.NoError(b, err)
	spent := func() (script, all float64) {
		got, err := chromedp.Call(s.Ctx, performance.GetMetrics, cdp.Empty{})
		require.NoError(b, err)
		for _, m := range got.Metrics {
			switch m.Name {
			case "ScriptDuration":
				script = m.Value
				all += m.Value
			case "LayoutDuration", "RecalcStyleDuration":
				all += m.Value
			}
		}
		return script, all
	}
	var frames, script, all float64
	for b.Loop() {
		script0, all0 := spent()
		n, err := chromedp.Run(s.Ctx, chromedp.Evaluate[float64](scrub, chromedp.EvalAwaitPromise))
		require.NoError(b, err)
		script1, all1 := spent()
		frames, script, all = frames+n, script+script1-script0, all+all1-all0
	}
	b.ReportMetric(script/frames*1000, "ms-script/frame")
	b.ReportMetric(all/frames*1000, "ms-work/frame")
}
