package export

import (
	"bytes"
	"encoding/csv"
	"strconv"
	"strings"
	"time"

	"coldember/core/practice"
	"coldember/internal/text"
)

// PracticeRow is a line of a teacher's sheet.
type PracticeRow struct {
	Who, Exercise, Piece string
	Undone               int
	Came                 practice.Result
	At                   time.Time
}

// PracticeCSV is a teacher's sheet as a table, a line for every time something was practised: who and what, how it went against
// its par, and when, in UTC. What a spreadsheet would take for a formula is written so that it does not.
func PracticeCSV(rows []PracticeRow) []byte {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	num := func(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }
	_ = w.Write([]string{"at", "who", "exercise", "piece", "done", "goalsMet", "goals", "heats", "parHeats", "blows", "parBlows", "coldBlows", "worstMm", "scaleG", "timeS", "takenBack", "faults"})
	for _, r := range rows {
		faults := make([]string, len(r.Came.Faults))
		for i, f := range r.Came.Faults {
			faults[i] = string(f)
		}
		c := &r.Came
		_ = w.Write([]string{
			r.At.UTC().Format(time.RFC3339), text.Defused(r.Who), r.Exercise, text.Defused(r.Piece), strconv.FormatBool(c.Done), strconv.Itoa(c.Met), strconv.Itoa(c.Goals),
			strconv.Itoa(c.Heats), strconv.Itoa(c.ParHeats), strconv.Itoa(c.Blows), strconv.Itoa(c.ParBlows), strconv.Itoa(c.Cold),
			num(c.WorstMm), num(c.ScaleG), num(c.TimeS), strconv.Itoa(r.Undone), strings.Join(faults, " "),
		})
	}
	w.Flush() // a buffer takes everything
	return b.Bytes()
}
