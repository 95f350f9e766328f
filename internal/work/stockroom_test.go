package work_test

import (
	"context"
	"errors"
	"fmt"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"coldember/core/quantity"
	"coldember/core/stock"
	"coldember/core/whatif"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func shelf(t *testing.T, w *work.Work, d doc.Stock) work.Stock {
	t.Helper()
	s, err := w.AddStock(context.Background(), d)
	require.NoError(t, err)
	return s
}

func bar(w, t, l float64) stock.Item {
	return stock.Item{Form: stock.Flat, WidthMm: w, ThicknessMm: t, LengthMm: l}
}

func TestWhatAPieceWasBringsItsHazardsAndABelief(t *testing.T) {
	ctx := context.Background()
	w, _ := fresh(t)
	s, err := w.NewStock(ctx, stock.Coil, []edit.Edit{
		{Field: "name", Text: "Lorry spring"},
		{Field: "origin", Text: "coilSpring"},
		{Field: "piece.wireDiameterMm", Text: "13"},
		{Field: "piece.meanDiameterMm", Text: "110"},
		{Field: "piece.pitchMm", Text: "40"},
		{Field: "piece.turns", Text: "3.5"},
		{Field: "weighedKg", Text: "1.28 kg"},
	})
	require.NoError(t, err)
	assert.True(t, s.Doc.Believed)
	assert.Equal(t, []string{"tension", "coating"}, s.Doc.Hazards)
	require.NotNil(t, s.Belief)
	assert.Equal(t, "unknown-spring", s.Doc.SteelID)
	assert.InDelta(t, 1280/s.MassG, s.WeighedShare, 1e-9)
	assert.False(t, s.Bar)
	assert.True(t, s.Usable)
	before := s.Belief.Shares[0].Now
	s, err = w.EditStock(ctx, s.ID, s.Version, []edit.Edit{{Field: "test.spark", Text: "manyForks"}, {Field: "test.oilQuench", Text: "skates"}, {Field: "seen.coating", Text: "on"}, {Field: "coupon.snap", Text: "on"}, {Field: "dead.add", Text: "0; 60mm; wear"}})
	require.NoError(t, err)
	assert.Greater(t, s.Belief.Shares[0].Now, before)
	assert.InDelta(t, 60, s.Start.FromMm, 1e-9)
	s, err = w.EditStock(ctx, s.ID, s.Version, []edit.Edit{{Field: "test.spark", Text: ""}, {Field: "dead.delete", Text: "0"}, {Field: "hazard.tension", Text: "off"}})
	require.NoError(t, err)
	assert.Len(t, s.Doc.Findings, 1)
	assert.Equal(t, []string{"coating"}, s.Doc.Hazards)
	for field, text := range map[string]string{"origin": "moon", "test.spark": "purple", "test.taste": "salty", "hazard.coating": "maybe", "dead.add": "5; 3; hole", "dead.delete": "7"} {
		_, err := w.EditStock(ctx, s.ID, s.Version, typed(field, text))
		require.Error(t, err, field)
	}

	p := start(t, w)
	p, pl, err := w.SavePiece(ctx, p.ID, p.Version, typed("stockId", s.ID))
	require.NoError(t, err)
	assert.Equal(t, []string{"coating"}, p.Doc.Request.Origin.Acknowledged)
	require.NotNil(t, p.Doc.Request.Origin.Window, "a believed steel narrows the window")
	assert.Equal(t, "straighten", pl.Operations[0].Kind)
	p, _, err = w.SavePiece(ctx, p.ID, p.Version, typed("bar.turns", "3"))
	require.NoError(t, err)
	assert.Empty(t, p.Doc.StockID)
	assert.NotEmpty(t, p.Doc.Request.Origin.Hazards, "measuring it anew does not make it harmless")

	chain := shelf(t, w, doc.Stock{Name: "Chain", Piece: bar(20, 6, 300), SteelID: "1018", Origin: "chain", Hazards: []string{"galvanised"}})
	assert.True(t, chain.Refused)
	assert.False(t, chain.Usable)
	p, pl, err = w.SavePiece(ctx, p.ID, p.Version, typed("stockId", chain.ID))
	require.NoError(t, err)
	stops := 0
	for _, x := range pl.Warnings {
		if x.Code == "hazard.galvanised" {
			stops++
		}
	}
	assert.Equal(t, 1, stops)
	_, _, err = w.SavePiece(ctx, p.ID, p.Version, typed("origin.acknowledge", "galvanised"))
	require.Error(t, err, "nobody acknowledges zinc away")
	_, _, err = w.SavePiece(ctx, p.ID, p.Version, typed("origin.acknowledge", "coating"))
	require.NoError(t, err)
}

// twoPieces are a piece of work each on the same bar.
func twoPieces(t *testing.T, w *work.Work, s work.Stock) (a, b work.Piece) {
	t.Helper()
	ctx := context.Background()
	a = start(t, w)
	a, _, err := w.SavePiece(ctx, a.ID, a.Version, typed("stockId", s.ID))
	require.NoError(t, err)
	b, _, err = w.DuplicatePiece(ctx, a.ID, "Second")
	require.NoError(t, err)
	return a, b
}

func TestACutPlanIsLaidTakenAndMade(t *testing.T) {
	ctx := context.Background()
	w, _ := fresh(t)
	s := shelf(t, w, doc.Stock{Name: "Class bar", Piece: bar(25, 5, 1000), SteelID: "1084", Count: 2})
	a, b := twoPieces(t, w, s)
	order := work.CutOrder{Pieces: []work.CutWanted{{PieceID: a.ID, Count: 5}, {PieceID: b.ID, Count: 1}}, KerfMm: 1.5, KeepMm: 120, StubMm: 80}
	p, err := w.CutUp(ctx, order)
	require.NoError(t, err)
	require.Len(t, p.Groups, 1)
	g := p.Groups[0]
	assert.Empty(t, g.Unplaced)
	n := 0
	for _, x := range g.Bars {
		sum := x.RemnantMm
		for _, part := range x.Parts {
			sum += part.LengthMm + order.KerfMm
			n++
		}
		assert.InDelta(t, x.LengthMm, sum, 1e-6, "parts, kerfs and what is left make up the bar")
		assert.GreaterOrEqual(t, x.RemnantMm, order.StubMm, "the stub is left")
	}
	assert.Equal(t, 6, n)
	require.NoError(t, w.TakeCuts(ctx, p))
	rack, err := w.StockItem(ctx, s.ID)
	require.NoError(t, err)
	asked := 0.0
	for _, x := range g.Bars {
		for _, part := range x.Parts {
			asked += part.LengthMm + order.KerfMm
		}
	}
	assert.InDelta(t, asked, rack.BookedMm, 1e-6, "what the saw takes is booked too")
	assert.InDelta(t, 2000-asked, rack.FreeMm, 1e-6, "and is not free")
	// somebody else laid a plan on the same bars before: one wins, the other is told
	var stale *work.StaleError
	require.True(t, errors.As(w.TakeCuts(ctx, p), &stale))
	assert.Equal(t, "Class bar", stale.Current.(work.Stock).Doc.Name)

	_, _, err = w.SavePiece(ctx, a.ID, a.Version, typed("design.lengthMm", "95"))
	require.NoError(t, err)
	cuts, err := w.Cuts(ctx, a.ID)
	require.NoError(t, err)
	require.Len(t, cuts, 5)
	assert.Equal(t, work.CutBooked, cuts[0].State, "a booked cut stays as it was booked")

	cuts, err = w.SetCut(ctx, a.ID, "body", work.CutTyped{State: work.CutMadeNow})
	require.NoError(t, err)
	assert.Equal(t, work.CutMadeNow, cuts[0].State)
	all, _, err := w.Rack(ctx, false)
	require.NoError(t, err)
	require.Len(t, all, 3, "one whole bar, the remnant of the other, and the bar of the first plan")
	assert.Equal(t, 1, all[0].Doc.Count)
	left := all[2]
	assert.Equal(t, s.ID, left.Doc.ParentID)
	require.Len(t, left.History, 1)
	assert.InDelta(t, 1000-cuts[0].LengthMm-a.Doc.Request.Sizing.KerfMm, left.Doc.Piece.LengthMm, 1e-6)
	_, err = w.SetCut(ctx, a.ID, "body", work.CutTyped{State: work.CutProposed})
	var state *work.StateError
	require.True(t, errors.As(err, &state))
	assert.Equal(t, "problem.cutMade", state.Code)
	cuts, err = w.SetCut(ctx, b.ID, "body", work.CutTyped{State: work.CutProposed})
	require.NoError(t, err)
	assert.Equal(t, work.CutProposed, cuts[0].State, "a booked cut can be let go")
}

// TestWhatWasReallyCutIsWhatIsGone: the remnant is what is left of the bar, not of the plan; a length that the bar has not,
// or that is said of no cut, is told at its field.
func TestWhatWasReallyCutIsWhatIsGone(t *testing.T) {
	ctx := context.Background()
	w, _ := fresh(t)
	s := shelf(t, w, doc.Stock{Name: "Bar", Piece: bar(25, 5, 600), SteelID: "1084"})
	a, _ := twoPieces(t, w, s)
	for typed, code := range map[work.CutTyped]string{
		{State: work.CutMadeNow, Length: "long"}:  "quantity.missingNumber",
		{State: work.CutMadeNow, Length: "0"}:     "field.rangeLength",
		{State: work.CutMadeNow, Length: "1200"}:  "field.rangeLength",
		{State: work.CutBooked, Length: "120 mm"}: "cut.notMade",
	} {
		_, err := w.SetCut(ctx, a.ID, "body", typed)
		assert.Equal(t, code, fields(t, err)["length"].Code, typed)
	}
	planned, err := w.Cuts(ctx, a.ID)
	require.NoError(t, err)
	cuts, err := w.SetCut(ctx, a.ID, "body", work.CutTyped{State: work.CutMadeNow, Length: "6-1/2 in"})
	require.NoError(t, err)
	assert.InDelta(t, 165.1, cuts[0].LengthMm, 1e-9)
	left, err := w.StockItem(ctx, s.ID)
	require.NoError(t, err)
	assert.InDelta(t, 600-165.1-planned[0].KerfMm, left.Doc.Piece.LengthMm, 1e-6)
	assert.InDelta(t, 165.1, left.History[0].LengthMm, 1e-9)
}

func TestNoMoreIsCutThanThereIs(t *testing.T) {
	ctx := context.Background()
	w, _ := fresh(t)
	s := shelf(t, w, doc.Stock{Name: "Short", Piece: bar(25, 5, 200), SteelID: "1084"})
	a, b := twoPieces(t, w, s)
	_, err := w.SetCut(ctx, a.ID, "body", work.CutTyped{State: work.CutBooked})
	require.NoError(t, err)
	_, err = w.SetCut(ctx, b.ID, "body", work.CutTyped{State: work.CutBooked})
	var state *work.StateError
	require.True(t, errors.As(err, &state))
	assert.Equal(t, "problem.cutTooLong", state.Code)
	inches := []edit.Edit{{Field: "kerfMm", Text: "1/16", Units: quantity.Imperial}, {Field: "keepMm", Text: "4-1/2", Units: quantity.Imperial}}
	inInches, err := w.CutUp(ctx, work.CutOrder{Pieces: []work.CutWanted{{PieceID: b.ID, Count: 1}}, Edits: inches})
	require.NoError(t, err)
	assert.InDelta(t, 25.4/16, inInches.Order.KerfMm, 1e-9, "what was typed is what was meant")
	assert.InDelta(t, 4.5*25.4, inInches.Order.KeepMm, 1e-9)
	_, err = w.CutUp(ctx, work.CutOrder{Pieces: []work.CutWanted{{PieceID: b.ID, Count: 1}}, Edits: []edit.Edit{{Field: "kerfMm", Text: "abc"}}})
	assert.Equal(t, "quantity.missingNumber", fields(t, err)["kerfMm"].Code, "and nothing is taken for nought")
	p, err := w.CutUp(ctx, work.CutOrder{Pieces: []work.CutWanted{{PieceID: b.ID, Count: 3}}, KerfMm: 2})
	require.NoError(t, err)
	assert.Len(t, p.Groups[0].Unplaced, 3, "what is booked is not laid again")
	_, err = w.CutUp(ctx, work.CutOrder{})
	assert.Equal(t, "cutplan.nothing", codeOf(t, err))
	_, err = w.CutUp(ctx, work.CutOrder{Pieces: []work.CutWanted{{PieceID: "nobody", Count: 1}}})
	assert.Equal(t, "problem.notFound", codeOf(t, err))
	_, err = w.SetCut(ctx, a.ID, "body", work.CutTyped{State: work.CutMadeNow})
	require.NoError(t, err)
	left, err := w.StockItem(ctx, s.ID)
	require.NoError(t, err)
	assert.Less(t, left.Doc.Piece.LengthMm, 100.)
	loose := start(t, w)
	loose, _, err = w.SavePiece(ctx, loose.ID, loose.Version, typed("bar.widthMm", "26"))
	require.NoError(t, err)
	_, err = w.SetCut(ctx, loose.ID, "body", work.CutTyped{State: work.CutBooked})
	require.True(t, errors.As(err, &state))
	assert.Equal(t, "problem.cutNoStock", state.Code)
}

func TestTheRackGoesOutAndComesInAgain(t *testing.T) {
	ctx := context.Background()
	w, _ := fresh(t)
	shelf(t, w, doc.Stock{Name: `Bar, "wide"`, Piece: bar(40, 6, 610), SteelID: "1084", Place: "left wall", Cost: 12.5, Notes: "über"})
	shelf(t, w, doc.Stock{Name: "Rollers", Piece: stock.Item{Form: stock.Roller, DiameterMm: 24, LengthMm: 36}, SteelID: "unknown-bearing", Count: 8, Origin: "roller", Believed: true, Hazards: []string{"shards"}})
	raw, err := w.RackCSV(ctx)
	require.NoError(t, err)
	other, _ := fresh(t)
	n, err := other.ImportRackCSV(ctx, append([]byte("\xef\xbb\xbf"), raw...))
	require.NoError(t, err)
	assert.Len(t, n, 2)
	a, _, err := w.Rack(ctx, false)
	require.NoError(t, err)
	b, _, err := other.Rack(ctx, false)
	require.NoError(t, err)
	assert.Equal(t, a[0].Doc, b[0].Doc)
	assert.Equal(t, a[1].Doc.Piece, b[1].Doc.Piece)
	assert.Equal(t, a[1].Doc.Origin, b[1].Doc.Origin)
	assert.Equal(t, 8, b[1].Doc.Count)
	again, err := other.RackCSV(ctx)
	require.NoError(t, err)
	assert.Equal(t, len(strings.Split(string(raw), "\n")), len(strings.Split(string(again), "\n")))
}

func TestABadTableNamesLineAndColumnAndBringsNothing(t *testing.T) {
	ctx := context.Background()
	w, _ := fresh(t)
	good := "name,form,widthMm,thicknessMm,lengthMm,steelId\nBar,flat,25,5,1000,1084\n"
	for name, c := range map[string]struct {
		text, code, column string
		line               int
	}{
		"column":   {"name,form,width\nx,flat,3\n", "csv.column", "width", 1},
		"missing":  {"name,widthMm\nx,3\n", "csv.missing", "form", 1},
		"number":   {good + "Bar,flat,2x,5,900,1084\n", "csv.value", "widthMm", 3},
		"unit":     {good + "Bar,flat,25 ells,5,900,1084\n", "csv.value", "widthMm", 3},
		"comma":    {strings.ReplaceAll(good, ",", ";") + "Bar;flat;25;5;1,250;1084\n", "csv.value", "lengthMm", 3},
		"twice":    {"name,form,name\nx,flat,y\n", "csv.columnTwice", "name", 1},
		"half":     {"name,form,diameterMm,steelId,count\nx,ball,30,52100,2.7\n", "csv.value", "count", 2},
		"known":    {"name,form,diameterMm,known\nx,ball,30,maybe\n", "csv.value", "known", 2},
		"presumed": {"name,form,diameterMm,steelId\nx,ball,30,1084\n", "csv.value", "steelId", 2},
		"which":    {"name,form,widthMm,thicknessMm,lengthMm\nBar,flat,25,5,1000\n", "csv.value", "steelId", 2},
		"form":     {good + "Bar,lump,25,5,900,1084\n", "csv.choice", "form", 3},
		"width":    {good + "Bar,flat,25\n", "csv.width", "", 3},
		"value":    {good + "Bar,flat,25,0,900,1084\n", "csv.value", "thicknessMm", 3},
		"steel":    {good + "Bar,flat,25,5,900,moon\n", "csv.value", "steelId", 3},
		"encoding": {good + "B\xe4r,flat,25,5,900,1084\n", "csv.encoding", "", 3},
		"quotes":   {good + "\"Bar,flat,25,5,900,1084\n", "csv.quotes", "", 3},
		"empty":    {"", "csv.empty", "", 1},
	} {
		_, err := w.ImportRackCSV(ctx, []byte(c.text))
		var ce *work.CSVError
		require.True(t, errors.As(err, &ce), "%s: %v", name, err)
		assert.Equal(t, c.code, ce.Code, name)
		assert.Equal(t, c.column, ce.Column, name)
		assert.Equal(t, c.line, ce.Line, name)
	}
	rack, _, err := w.Rack(ctx, false)
	require.NoError(t, err)
	assert.Empty(t, rack, "nothing half-imported")
	n, err := w.ImportRackCSV(ctx, []byte(strings.ReplaceAll(good, ",", ";")+"Half inch;flat;25,4;0.25 in;900;5160\n"))
	require.NoError(t, err)
	assert.Len(t, n, 2, "semicolons do too, and commas for points")
	rack, _, err = w.Rack(ctx, false)
	require.NoError(t, err)
	i := slices.IndexFunc(rack, func(s work.Stock) bool { return s.Doc.Name == "Half inch" })
	assert.InDelta(t, 25.4, rack[i].Doc.Piece.WidthMm, 1e-9)
	assert.InDelta(t, 6.35, rack[i].Doc.Piece.ThicknessMm, 1e-9)
}

func FuzzReadRackCSV(f *testing.F) {
	f.Add([]byte("name,form,widthMm,thicknessMm,lengthMm,steelId\nBar,flat,25,5,1000,1084\n"))
	f.Add([]byte("name;form;known\nx;ball;no\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		docs, err := work.ReadRackCSV(data)
		if err != nil && docs != nil {
			t.Fatal("half a table")
		}
	})
}

func TestTheRackIsRankedAndTheLibraryFits(t *testing.T) {
	ctx := context.Background()
	w, _ := fresh(t)
	s := shelf(t, w, doc.Stock{Name: "Good", Piece: bar(30, 6, 600), SteelID: "1084", Cost: 10})
	shelf(t, w, doc.Stock{Name: "Narrow", Piece: bar(10, 4, 600), SteelID: "1084"})
	shelf(t, w, doc.Stock{Name: "Zinc", Piece: bar(30, 6, 600), SteelID: "1018", Hazards: []string{"galvanised"}})
	p := start(t, w)
	ranked, err := w.RankRack(ctx, p.Doc)
	require.NoError(t, err)
	require.Len(t, ranked, 4)
	assert.True(t, ranked[0].Planned)
	assert.Equal(t, "Zinc", ranked[3].Stock.Doc.Name)
	fits, err := w.Fits(ctx, s.ID)
	require.NoError(t, err)
	patterns, _, err := w.Patterns(ctx, false)
	require.NoError(t, err)
	require.Len(t, fits, len(patterns))
	assert.True(t, fits[0].Feasible)
	last := fits[len(fits)-1]
	assert.False(t, last.Feasible && last.Factor == 0)
	hopes, err := w.Hopes(ctx, p.Doc)
	require.NoError(t, err)
	assert.NotNil(t, hopes)
	costs, err := w.Costs(ctx, p.Doc)
	require.NoError(t, err)
	assert.NotEmpty(t, costs)
	sure, err := w.Sure(ctx, p.Doc, nil, 500, 1)
	require.NoError(t, err)
	assert.Greater(t, sure.P95Mm, sure.P50Mm)
	fit, err := w.Largest(ctx, p.Doc, whatif.AnyWay())
	require.NoError(t, err)
	assert.Positive(t, fit.Length)
	_, err = w.Largest(ctx, p.Doc, whatif.Freedom{})
	assert.Equal(t, "plan.nothingFree", codeOf(t, err))
}

// BenchmarkFits1000 asks what of a thousand patterns comes of one bar.
func BenchmarkFits1000(b *testing.B) {
	st, err := store.Open(ctx, filepath.Join(b.TempDir(), "many.db"), nil)
	require.NoError(b, err)
	defer func() { _ = st.Close() }()
	w := work.New(st, time.Now, work.RandomID)
	require.NoError(b, w.Ensure(ctx))
	first, _, err := w.Patterns(ctx, false)
	require.NoError(b, err)
	for i := range 990 {
		p := first[i%len(first)].Doc
		p.Name = fmt.Sprint(p.Name, i)
		p.Design.LengthMm *= .8 + float64(i%60)/100
		_, err := w.AddPattern(ctx, p)
		if err != nil {
			p.Design = first[i%len(first)].Doc.Design
			_, err = w.AddPattern(ctx, p)
		}
		require.NoError(b, err)
	}
	s, err := w.AddStock(ctx, doc.Stock{Name: "Bar", Piece: bar(30, 6, 220), SteelID: "80CrV2", Count: 1})
	require.NoError(b, err)
	for b.Loop() {
		out, err := w.Fits(ctx, s.ID)
		require.NoError(b, err)
		require.NotEmpty(b, out)
	}
}
