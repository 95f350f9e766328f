package session_test

import (
	"context"
	"fmt"

	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/core/session"
)

// A plan is taken to the fire; the piece goes in, comes out, and goes back once the first step
// is done.
func Example() {
	req := plantest.Request()
	p, err := planner.Make(context.Background(), req)
	if err != nil {
		panic(err)
	}
	course := session.Freeze(&req, p, planner.TreatmentSteps(&req, p))
	events := []session.Event{
		{ID: "a-1", Device: "a", Seq: 1, AtMs: 1_000, Kind: session.In},
		{ID: "a-2", Device: "a", Seq: 2, Saw: "a-1", AtMs: 200_000, Kind: session.Out},
	}
	state := session.Fold(&course, events)
	view := state.Show(&course, 210_000)
	fmt.Printf("%s: %s for %.0f more seconds, then %s\n", view.Phase, course.Steps[view.Step].Kind, view.LeftS, state.Next(&course, &view))
	// Output: out: corners for 24 more seconds, then back
}
