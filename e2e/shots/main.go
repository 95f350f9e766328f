// Command shots takes one picture of each main view, from demo data.
package main

import (
	"context"
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"time"

	"coldember/core/session"
	"coldember/e2e/harness"
	"coldember/internal/demo"
	"coldember/internal/edit"
	"coldember/internal/store"

	"github.com/chromedp/chromedp"
)

func main() {
	out := flag.String("out", "docs/screenshots", "folder of the pictures")
	only := flag.String("only", "", "only pictures whose name has this in it")
	flag.Parse()
	if err := run(*out, *only); err != nil {
		fmt.Fprintln(os.Stderr, "shots:", err)
		os.Exit(1)
	}
}

func run(out, only string) error {
	dir, err := os.MkdirTemp("", "coldember-shots")
	if err != nil {
		return err
	}
	defer func() { _ = os.RemoveAll(dir) }()
	app, err := harness.Serve(filepath.Join(dir, "demo.db"), func(ctx context.Context, s *store.Store) error {
		return demo.Build(ctx, s, time.Now())
	})
	if err != nil {
		return err
	}
	defer func() { _ = app.Close() }()
	ids, err := pieceIDs(app)
	if err != nil {
		return err
	}
	browser, err := harness.NewBrowser()
	if err != nil {
		return err
	}
	defer browser.Close()
	for _, v := range views(ids) {
		if !strings.Contains(v.name, only) {
			continue
		}
		if err := v.take(browser, app, out); err != nil {
			return fmt.Errorf("%s: %w", v.name, err)
		}
	}
	return nil
}

func pieceIDs(app *harness.App) (map[string]string, error) {
	ids := map[string]string{}
	pieces, _, err := app.Work.Pieces(context.Background(), false)
	for _, p := range pieces {
		ids[p.Doc.Name] = p.ID
	}
	if err != nil {
		return nil, err
	}
	// the reed slasher has been in the fire for a while
	fire, err := app.Work.FireOf(context.Background(), ids[demo.Reed])
	if err != nil {
		return nil, err
	}
	now := time.Now().UnixMilli()
	in := session.Event{ID: "shots-1", Device: "shots", Seq: 1, AtMs: now - 500_000, Kind: session.In}
	events, err := app.Work.Happened(context.Background(), fire.ID, 0)
	if err != nil {
		return nil, err
	}
	in.Saw = events[len(events)-1].ID
	if _, err := app.Work.Tell(context.Background(), fire.ID, now, []session.Event{in}); err != nil {
		return nil, err
	}
	// the slicer goes into a bath that is too slow for its spine
	slicer, err := app.Work.Piece(context.Background(), ids[demo.Slicer])
	if err != nil {
		return nil, err
	}
	if _, _, err := app.Work.SavePiece(context.Background(), slicer.ID, slicer.Version, []edit.Edit{{Field: "treatment.bath.class", Text: "stillOil"}}); err != nil {
		return nil, err
	}
	// the rigging knife was found to have a pit that stays
	rigging, err := app.Work.Piece(context.Background(), ids[demo.Rigging])
	if err != nil {
		return nil, err
	}
	if _, _, err := app.Work.SavePiece(context.Background(), rigging.ID, rigging.Version, []edit.Edit{{Field: "finish.pit.add", Text: "50; 14; back; 1.1"}}); err != nil {
		return nil, err
	}
	// the slicer's pattern has a second revision, to be compared
	patterns, _, err := app.Work.Patterns(context.Background(), false)
	for _, p := range patterns {
		if p.Doc.Name == demo.Slicer {
			ids["pattern"] = p.ID
			_, err = app.Work.EditPattern(context.Background(), p.ID, p.Version, []edit.Edit{{Field: "scaleLength", Text: "110"}, {Field: "design.tipMm", Text: "1.4"}})
		}
	}
	return ids, err
}

// view is one picture: where it is, how large, and what is done before.
type view struct {
	name          string
	path          string
	width, height int64
	day           bool
	steps         []chromedp.Action[chromedp.Void]
}

func (v view) take(b *harness.Browser, app *harness.App, out string) error {
	if v.width == 0 {
		v.width, v.height = 1280, 800
	}
	if err := v.light(app); err != nil {
		return err
	}
	p, err := b.NewPage(v.width, v.height)
	if err != nil {
		return err
	}
	defer p.Close()
	if err := p.Do(chromedp.Navigate(app.Link(v.path)), chromedp.WaitReady(chromedp.CSS("main"))); err != nil {
		return err
	}
	if err := p.Do(append(v.steps, chromedp.Sleep(400*time.Millisecond))...); err != nil {
		return err
	}
	png, err := p.Shot()
	if err != nil {
		return err
	}
	if f := p.Faults(); len(f) > 0 {
		return fmt.Errorf("the page complained: %v", f)
	}
	return os.WriteFile(filepath.Join(out, v.name+".png"), png, 0o600)
}

// light sets the shop's theme for the picture.
func (v view) light(app *harness.App) error {
	ctx, theme := context.Background(), "night"
	if v.day {
		theme = "day"
	}
	shop, err := app.Work.Shop(ctx)
	if err == nil {
		_, err = app.Work.EditShop(ctx, shop.Version, []edit.Edit{{Field: "theme", Text: theme}})
	}
	return err
}
