package e2e

import (
	"context"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"coldember/e2e/harness"
	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// dragToPaint moves the length handle as a hand does, a step each frame, and
// answers for every change that was drawn how long after its move the frame
// with it came, ms, sorted.
const dragToPaint = `new Promise(done => {
	const handle = document.querySelector("[data-handle='design.lengthMm']");
	const at = () => { const r = handle.getBoundingClientRect(); return [r.left + r.width / 2, r.top + r.height / 2]; };
	const fire = (type, x, y) => handle.dispatchEvent(new PointerEvent(type, {bubbles: true, pointerId: 1, clientX: x, clientY: y}));
	handle.setPointerCapture = () => {};
	const [x, y] = at();
	const moved = [], took = [];
	let drawn = 0;
	new MutationObserver(() => {
		const mm = parseFloat(document.querySelector("[data-figure=blade]").textContent);
		requestAnimationFrame(() => { const c = new MessageChannel(); c.port1.onmessage = () => { const now = performance.now();
			// the newest move that asked for no more than is shown
			for (let i = moved.length - 1; i >= drawn; i--) if (Math.abs(moved[i].mm - mm) < 0.26) { took.push(now - moved[i].at); drawn = i + 1; break; }
		}; c.port2.postMessage(0); });
	}).observe(document.querySelector("[data-figure=blade]"), {characterData: true, subtree: true, childList: true});
	fire("pointerdown", x, y);
	let n = 0;
	const start = parseFloat(document.querySelector("[data-figure=blade]").textContent);
	const step = () => {
		n++;
		fire("pointermove", x + n, y);
		const asked = parseFloat(document.querySelector("aside input[data-field='design.lengthMm']").value);
		moved.push({at: performance.now(), mm: asked});
		if (n < 90) setTimeout(step, 16);
		else setTimeout(() => { fire("pointerup", x + n, y); setTimeout(() => done(took.sort((a, b) => a - b)), 300); }, 300);
	};
	step();
})`

// typeToPaint types lengths into the field, one when the last is on the page, and answers how
// long after each the frame with its bar came, ms, sorted.
const typeToPaint = `new Promise(async done => {
	const input = document.querySelector("aside input[data-field='design.lengthMm']");
	const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
	const painted = () => new Promise(r => requestAnimationFrame(() => { const c = new MessageChannel(); c.port1.onmessage = r; c.port2.postMessage(0); }));
	const shown = () => document.querySelector("[data-figure=blade]").textContent + document.querySelector("[data-figure=cut]").textContent;
	const took = [];
	input.focus();
	for (let n = 0; n < 40; n++) {
		const before = shown(), at = performance.now();
		set.call(input, String(87 + n % 9 + n / 8));
		input.dispatchEvent(new Event("input", {bubbles: true}));
		while (shown() === before && performance.now() - at < 3000) await new Promise(r => requestAnimationFrame(r));
		await painted();
		took.push(performance.now() - at);
		await new Promise(r => setTimeout(r, 120));
	}
	done(took.sort((a, b) => a - b));
})`

// BenchmarkDragToPaint reports the time from a move of the hand to the frame
// that shows its plan.
func BenchmarkDragToPaint(b *testing.B) {
	p := onTheBench(b)
	var took []float64
	for b.Loop() {
		var err error
		took, err = chromedp.Run(p.Ctx, chromedp.Evaluate[[]float64](dragToPaint, chromedp.EvalAwaitPromise))
		require.NoError(b, err)
		require.NotEmpty(b, took)
	}
	report(b, took)
}

// BenchmarkTypeToPaint reports the time from a typed figure to the frame that shows its bar.
func BenchmarkTypeToPaint(b *testing.B) {
	p := onTheBench(b)
	var took []float64
	for b.Loop() {
		var err error
		took, err = chromedp.Run(p.Ctx, chromedp.Evaluate[[]float64](typeToPaint, chromedp.EvalAwaitPromise))
		require.NoError(b, err)
		require.NotEmpty(b, took)
	}
	report(b, took)
}

// BenchmarkColdBench reports how long a bench takes to be drawn in a window that has nothing
// of the program yet.
func BenchmarkColdBench(b *testing.B) {
	var took []float64
	for b.Loop() {
		_, drawn := openBench(b)
		took = append(took, float64(drawn.Milliseconds()))
	}
	slices.Sort(took)
	report(b, took)
}

// onTheBench is a page on the bench of the rigging knife, a second after it was drawn.
func onTheBench(b *testing.B) *harness.Page {
	b.Helper()
	p, _ := openBench(b)
	require.NoError(b, p.Do(chromedp.Sleep(time.Second)))
	return p
}

// openBench is a new page on the bench, and how long it took to be drawn.
func openBench(b *testing.B) (*harness.Page, time.Duration) {
	b.Helper()
	app, err := harness.Serve(filepath.Join(b.TempDir(), "demo.db"), buildDemo)
	require.NoError(b, err)
	b.Cleanup(func() { _ = app.Close() })
	pieces, _, err := app.Work.Pieces(context.Background(), false)
	require.NoError(b, err)
	p, err := browser.NewPage(1280, 800)
	require.NoError(b, err)
	b.Cleanup(p.Close)
	begun := time.Now()
	for _, piece := range pieces {
		if piece.Doc.Name == demo.Rigging {
			require.NoError(b, p.Do(chromedp.Navigate(app.Link("/pieces/"+piece.ID)), chromedp.WaitVisible(chromedp.CSS("[data-figure=cut]"))))
		}
	}
	return p, time.Since(begun)
}

func report(b *testing.B, took []float64) {
	b.ReportMetric(took[len(took)/2], "ms/median")
	b.ReportMetric(took[(len(took)-1)*95/100], "ms/p95")
	b.ReportMetric(float64(len(took)), "frames")
}
