package heats

import "coldember/core/forge"

// Continue goes on from a state through the operations that are left, in their order:
// the one in hand is taken up where it was left. It keeps the states of its heats.
// Errors are those of forge.Run.
func Continue(work *forge.Budget, setup forge.Setup, ops []*forge.Operation, st forge.State) (*forge.Run, error) {
	run, err := forge.Resume(setup, st)
	if err != nil {
		return nil, err
	}
	run.KeepStates, run.Budget = true, work
	begun := st.Operation == ""
	for _, op := range ops {
		begun = begun || op.ID == st.Operation
		if !begun || op.Kind == forge.Harden {
			continue
		}
		if err := run.Do(op); err != nil {
			return nil, err
		}
	}
	return run, nil
}
