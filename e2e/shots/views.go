package main

import (
	"context"
	"time"

	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
)

func views(ids map[string]string) []view {
	piece := func(name, stage string) string { return "/pieces/" + ids[name] + "/" + stage }
	wait := func(css string) chromedp.Action[chromedp.Void] { return chromedp.WaitVisible(chromedp.CSS(css)) }
	click := func(css string) chromedp.Action[chromedp.Void] { return chromedp.Click(chromedp.CSS(css)) }
	bench := wait("[data-figure=cut]")
	all := func(s ...chromedp.Action[chromedp.Void]) []chromedp.Action[chromedp.Void] { return s }
	return []view{
		{name: "pieces", path: "/", steps: all(wait("main li"))},
		{name: "new-piece", path: "/?new", steps: all(wait("[role=dialog] [role=radiogroup] label"))},
		{name: "bench-blade", path: piece(demo.Rigging, "blade"), steps: all(bench)},
		{name: "outline", path: piece(demo.Slicer, "blade"), steps: all(bench, chromedp.KeyEvent("n"), wait("[data-testid=node-panel]"), chromedp.Focus(chromedp.CSS("[data-node='edge.3']")), click("[data-fold=section] summary"), chromedp.ScrollIntoView(chromedp.CSS("[data-testid=section-figures]")))},
		{name: "harden", path: piece(demo.Slicer, "harden"), day: true, steps: all(wait("[data-testid=harden-sum]"), wait("[data-testid=temper-line]"))},
		{name: "finish", path: piece(demo.Rigging, "finish"), steps: all(wait("[data-testid=map-back]"), wait("[data-way]"))},
		{name: "heat", path: piece(demo.Rigging, "heats"), steps: all(bench, click("[data-heat='5']"), wait("[data-testid=heat-detail]"))},
		{name: "anvil", path: piece(demo.Reed, "fire"), steps: all(wait("[data-next=out]"), chromedp.Sleep(time.Second), click("[data-next=out]"), wait("[data-phase=out]"), chromedp.Sleep(5*time.Second))},
		{name: "log", path: piece(demo.Rigging, "log"), steps: all(wait("[data-testid=log-overlay]"))},
		{name: "patterns", path: "/patterns/" + ids["pattern"], steps: all(wait("[data-compare=barMm]"))},
		{name: "replan", path: piece(demo.Reed, "log"), steps: all(wait("[data-testid=to-replan]"), click("[data-testid=to-replan]"), wait("[data-station='3.thicknessMm']"), fillMeasured(), click("[data-testid=replan-ask]"), wait("[data-way]"))},
		{name: "item", path: "/rack", steps: all(wait("main li"), click("[data-item='Lorry spring end']"), wait("[data-testid=belief]"))},
		{name: "cuts", path: "/cuts", day: true, steps: all(wait("[data-want='Rigging knife']"), chromedp.Focus(chromedp.CSS("[data-want='Rigging knife']")), chromedp.KeyEvent("6\r"), wait("[data-testid=cut-group]"))},
		{name: "billet", path: "/rack", steps: all(wait("main li"), click("[data-testid=lay-billet]"), wait("[data-testid=face-bar]"), wait("[data-testid=step-labour]"))},
		{name: "learned", path: "/learned", day: true, steps: all(wait("[data-lesson=blow]"), click("[data-lesson=blow] summary"), wait("[data-testid=held]"))},
		{name: "sheet", path: "/sheet", steps: all(
			wait("[data-want='Marking knife']"), click("[data-field='sheet.stock']"), chromedp.Click(chromedp.Search("//*[@role='option'][contains(., 'harrow disc')]")),
			chromedp.Focus(chromedp.CSS("[data-want='Net knife']")), chromedp.KeyEvent("4"), chromedp.Focus(chromedp.CSS("[data-want='Spoon knife']")), chromedp.KeyEvent("5\r"), wait("[data-part='8']"))},
		{name: "tablet", path: piece(demo.Rigging, "cut"), width: 1024, height: 768, steps: all(bench)},
		{name: "phone", path: piece(demo.Rigging, "cut"), width: 390, height: 844, steps: all(bench)},
		{name: "handle", path: piece(demo.Rigging, "blade"), steps: all(bench, click("[data-fold=handle] summary"), click("[data-testid=fit-hand]"), wait("[data-testid=whole-figures]"), chromedp.ScrollIntoView(chromedp.CSS("[data-testid=whole-figures]")))},
	}
}

// fillMeasured reads every place as planned, one of them thinner: a deep blow.
func fillMeasured() chromedp.Action[chromedp.Void] {
	script := chromedp.Evaluate[bool](`(() => {
		const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
		for (const x of document.querySelectorAll("[data-station$='.thicknessMm'], [data-station$='.heightMm']")) {
			set.call(x, String(Number(x.placeholder) * (x.dataset.station === "3.thicknessMm" ? 0.85 : 1)));
			x.dispatchEvent(new Event("input", { bubbles: true }));
		}
		return true;
	})()`)
	return chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		_, err := script(ctx, t)
		return err
	})
}
