package session_test

import (
	"testing"

	"coldember/core/fact"
	"coldember/core/harden"
	"coldember/core/quantity"
	"coldember/core/session"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTheTreatmentIsWalked: on from the forging by a word of its own, a touch a step, with what
// is counted down from the end of the one before; and it stands in the book.
func TestTheTreatmentIsWalked(t *testing.T) {
	c, _ := course(t)
	s := walk(t, c)
	forged := session.Fold(c, s.events)
	v := forged.Show(c, s.ms)
	assert.Equal(t, session.Finished, v.Phase)
	assert.False(t, v.Treating, "nobody hardens because the last blow is done")
	assert.Empty(t, forged.Next(c, &v))
	s.kind(86400, session.ToHarden)
	names := []string{}
	for range len(c.Treatment) {
		st := session.Fold(c, s.events)
		v := st.Show(c, s.ms+500)
		require.True(t, v.Treating)
		step := c.Treatment[v.Treat]
		names = append(names, step.ID)
		assert.InDelta(t, .5, v.TreatS, 1e-9, step.ID)
		if step.CountS > 0 {
			assert.InDelta(t, step.CountS-.5, v.TreatLeftS, 1e-9, step.ID)
		}
		require.Equal(t, session.Treated, st.Next(c, &v))
		e := session.Event{Kind: session.Treated, Step: step.ID}
		if step.ID == "file" {
			e.Seen = &session.Seen{File: session.Skates, HRC: 64}
		}
		s.tell(2, e)
		require.Empty(t, session.Problems(&s.events[len(s.events)-1], c))
	}
	assert.Equal(t, []string{"soak", "quench", "straighten", "file", "toOven", "temper-1", "cool-1", "temper-2"}, names)
	done := session.Fold(c, s.events)
	v = done.Show(c, s.ms)
	assert.False(t, v.Treating)
	assert.Empty(t, done.Next(c, &v))
	assert.Equal(t, len(c.Steps), done.Step, "the forging is as it was")
	b := session.BookOf(c, s.events)
	require.Len(t, b.Treatment, len(c.Treatment))
	assert.Equal(t, session.Skates, b.Treatment[3].Seen.File)
	assert.Equal(t, session.BookOf(c, s.events[:len(s.events)-len(c.Treatment)-1]).Totals.Blows, b.Totals.Blows)
}

// TestTheTreatmentGoesOnWithoutTheForging: whoever forged without a screen hardens with one; a
// step that is passed over is done, one told twice counts once, and undo takes back.
func TestTheTreatmentGoesOnWithoutTheForging(t *testing.T) {
	c, _ := course(t)
	s := &screen{name: "shelf", ms: began}
	s.kind(1, session.ToHarden)
	s.tell(60, session.Event{Kind: session.Treated, Step: "quench"})
	s.tell(1, session.Event{Kind: session.Treated, Step: "soak"})
	st := session.Fold(c, s.events)
	v := st.Show(c, s.ms)
	assert.Equal(t, "straighten", c.Treatment[v.Treat].ID)
	assert.Zero(t, st.Step)
	quench := s.events[1].ID
	s.tell(1, session.Event{Kind: session.Saw, Step: "quench", Seen: &session.Seen{BathC: 62}})
	s.tell(1, session.Event{Kind: session.Undo, Undoes: quench})
	st = session.Fold(c, s.events)
	v = st.Show(c, s.ms)
	assert.Equal(t, "quench", c.Treatment[v.Treat].ID)
	require.Len(t, st.Told, 2, "the soak, told late, now counts, and what was seen stays")
	assert.InDelta(t, 62, st.Told[1].Seen.BathC, 0)
}

func TestWhatWasSeenIsRead(t *testing.T) {
	for _, c := range []struct {
		what  harden.Sight
		text  string
		quick bool
		want  session.Seen
	}{
		{harden.SeeTemp, "805", false, session.Seen{TempC: 805}},
		{harden.SeeTemp, "1480 F", false, session.Seen{TempC: 804.44}},
		{harden.SeeBath, " 55 °C ", false, session.Seen{BathC: 55}},
		{harden.SeeTime, "6", true, session.Seen{TimeS: 6}},
		{harden.SeeTime, "6", false, session.Seen{TimeS: 360}},
		{harden.SeeTime, "90 s", false, session.Seen{TimeS: 90}},
		{harden.SeeTime, "2 h", true, session.Seen{TimeS: 7200}},
		{harden.SeeTime, "8 min", true, session.Seen{TimeS: 480}},
		{harden.SeeWarp, "1.2", false, session.Seen{WarpMm: 1.2}},
		{harden.SeeFile, "bites", false, session.Seen{File: session.Bites}},
		{harden.SeeGrain, "9", false, session.Seen{GrainNumber: 9}},
		{harden.SeeHard, "61.5", false, session.Seen{HRC: 61.5}},
		{harden.SeeHard, "  ", false, session.Seen{}},
	} {
		got := session.Seen{}
		require.NoError(t, session.ParseSeen(c.what, c.text, c.quick, quantity.Metric, &got), c.text)
		assert.InDelta(t, c.want.TempC, got.TempC, .01, c.text)
		got.TempC, c.want.TempC = 0, 0
		assert.Equal(t, c.want, got, c.text)
	}
	var wrong *session.FieldError
	require.ErrorAs(t, session.ParseSeen(harden.SeeTime, "soon", false, quantity.Metric, &session.Seen{}), &wrong)
	assert.Equal(t, "time", wrong.Field)
	c, _ := course(t)
	for field, e := range map[string]session.Event{
		"seen.hrc":         {Kind: session.Saw, Seen: &session.Seen{HRC: 640}},
		"seen.file":        {Kind: session.Saw, Seen: &session.Seen{File: "maybe"}},
		"seen.tempC":       {Kind: session.Saw, Seen: &session.Seen{TempC: 8050}},
		"seen.grainNumber": {Kind: session.Saw, Seen: &session.Seen{GrainNumber: 90}},
		"seen":             {Kind: session.Saw},
		"step":             {Kind: session.Treated, Step: "temper-9"},
	} {
		e.ID, e.Device, e.Seq, e.AtMs = "a-1", "a", 1, began
		var errs fact.FieldErrors
		require.ErrorAs(t, e.Validate(c), &errs, field)
		assert.Equal(t, field, errs[0].Field)
	}
	bare := *c
	bare.Treatment = nil
	e := session.Event{ID: "a-1", Device: "a", Seq: 1, AtMs: began, Kind: session.ToHarden}
	assert.Error(t, e.Validate(&bare))
}
