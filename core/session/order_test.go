package session_test

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"testing"

	"coldember/core/session"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// anyEvents are events as no honest device makes them.
func anyEvents(t *rapid.T, c *session.Course) []session.Event {
	n := rapid.IntRange(0, 60).Draw(t, "n")
	ids := rapid.StringMatching(`[a-c]-[0-9]{1,2}`)
	out := make([]session.Event, n)
	for i := range out {
		e := session.Event{
			ID: ids.Draw(t, "id"), Device: rapid.SampledFrom([]string{"a", "b", "c"}).Draw(t, "device"), Seq: rapid.IntRange(1, 20).Draw(t, "seq"),
			Saw: ids.Draw(t, "saw"), AtMs: began + rapid.Int64Range(-4e6, 4e6).Draw(t, "at"), OffMs: rapid.Int64Range(-4e6, 4e6).Draw(t, "off"),
			Kind: rapid.SampledFrom(session.Kinds()).Draw(t, "kind"), Undoes: ids.Draw(t, "undoes"),
		}
		switch e.Kind {
		case session.Read:
			e.Reading = &session.Reading{Quantity: rapid.SampledFrom(session.Quantities()).Draw(t, "what"), Mm: rapid.Float64Range(.1, 60).Draw(t, "mm"), AtMm: rapid.Float64Range(0, 300).Draw(t, "atMm")}
		case session.Back, session.Done, session.NotYet:
			if rapid.Bool().Draw(t, "named") {
				e.Step = rapid.SampledFrom(c.Steps).Draw(t, "step").ID
			}
			e.Side = rapid.SampledFrom([]session.Side{"", session.MarkSide, session.OtherSide}).Draw(t, "side")
		}
		out[i] = e
	}
	return out
}

// TestTheOrderOfArrivalIsNothing: any order, gaps and repeats of the same events come to the
// same state, whatever they claim to have seen.
func TestTheOrderOfArrivalIsNothing(t *testing.T) {
	c, _ := course(t)
	rapid.Check(t, func(t *rapid.T) {
		events := anyEvents(t, c)
		want := session.Fold(c, events)
		rng := rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "seed"), 1))
		mixed := append(append([]session.Event{}, events...), events[:len(events)/2]...)
		rng.Shuffle(len(mixed), func(i, j int) { mixed[i], mixed[j] = mixed[j], mixed[i] })
		got := session.Fold(c, mixed)
		if !assert.ObjectsAreEqual(want, got) {
			t.Fatalf("another state:\n%+v\n%+v", want, got)
		}
		for _, at := range []int64{began - 1e7, began, began + 1e5, began + 1e9} {
			v := got.Show(c, at)
			if math.IsNaN(v.LeftS) || math.IsNaN(v.NowC) || v.Step < 0 || v.Step > len(c.Steps) {
				t.Fatalf("view %+v", v)
			}
			got.Next(c, &v)
		}
		session.BookOf(c, mixed)
	})
}

// TestEachDeviceStaysInItsOrder: no event comes before one that it had seen, or that its
// device made before it, where the claims are no ring.
func TestEachDeviceStaysInItsOrder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		screens := []*screen{{name: "a"}, {name: "b"}, {name: "c"}}
		var all []session.Event
		for range rapid.IntRange(1, 40).Draw(t, "n") {
			s := rapid.SampledFrom(screens).Draw(t, "who")
			if len(all) > 0 && rapid.Bool().Draw(t, "heard") {
				s.saw = rapid.SampledFrom(all).Draw(t, "of").ID
			}
			all = append(all, s.kind(1, session.Noted))
		}
		at := map[string]int{}
		order := session.Order(all)
		for i, e := range order {
			at[e.ID] = i + 1
		}
		last := map[string]int{}
		for i, e := range order {
			if e.Seq != last[e.Device]+1 {
				t.Fatalf("%s after %d", e.String(), last[e.Device])
			}
			last[e.Device] = e.Seq
			if e.Saw != "" && at[e.Saw] > i {
				t.Fatalf("%s before what it saw", e.String())
			}
		}
		if len(order) != len(all) {
			t.Fatal("some are lost")
		}
	})
}

// FuzzFold reads any events at all: no panic, and the same state in the order they came in and
// the other way round.
func FuzzFold(f *testing.F) {
	c, _ := course(f)
	f.Add([]byte(`[{"id":"a-1","device":"a","seq":1,"atMs":1,"kind":"out"},{"id":"a-2","device":"a","seq":2,"saw":"a-1","atMs":9,"kind":"back","step":"1-1"},{"id":"b-1","device":"b","seq":1,"saw":"a-2","kind":"undo","undoes":"a-2"}]`))
	f.Add([]byte(`[{"id":"x","saw":"y","kind":"out"},{"id":"y","saw":"x","kind":"reading"},{"id":"x","kind":"fault"}]`))
	f.Fuzz(func(t *testing.T, b []byte) {
		var events []session.Event
		if json.Unmarshal(b, &events) != nil || len(events) > 500 {
			return
		}
		want := session.Fold(c, events)
		for i, j := 0, len(events)-1; i < j; i, j = i+1, j-1 {
			events[i], events[j] = events[j], events[i]
		}
		require.Equal(t, want, session.Fold(c, events))
		want.Show(c, 1<<40)
		session.BookOf(c, events)
	})
}

func BenchmarkFold10000(b *testing.B) {
	c, _ := course(b)
	s := &screen{name: "shelf", ms: began}
	for range 2500 {
		for _, k := range []session.Kind{session.Out, session.FirstBlow, session.LastBlow, session.NotYet} {
			s.kind(10, k)
		}
	}
	for b.Loop() {
		session.Fold(c, s.events)
	}
}
