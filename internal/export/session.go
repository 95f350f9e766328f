package export

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"math"
	"sort"
	"strconv"
	"strings"
	"time"

	"coldember/core/plan"
	"coldember/core/session"
	"coldember/internal/text"
)

// SessionFormat and SessionVersion name the file of a session at the fire.
const (
	SessionFormat  = "coldember-session"
	SessionVersion = 1
)

// SessionFile is a session with its frozen plan, all that happened as it came, and what it
// comes to.
type SessionFile struct {
	Format  string          `json:"format" enum:"coldember-session"`
	Version int             `json:"version"`
	Name    string          `json:"name"`
	Hand    string          `json:"hand,omitempty"`
	Request plan.Request    `json:"request"`
	Course  session.Course  `json:"course"`
	Events  []session.Event `json:"events"`
	Book    session.Book    `json:"book"`
}

// Made is a session to be written.
type Made struct {
	Name    string
	Hand    string
	Steel   string // its name
	Request plan.Request
	Course  *session.Course
	Events  []session.Event
	Book    session.Book
	Zone    *time.Location
}

// SessionJSON writes a session as a file that another program can read.
func SessionJSON(m Made) ([]byte, error) {
	b, err := json.MarshalIndent(SessionFile{
		Format: SessionFormat, Version: SessionVersion, Name: m.Name, Hand: m.Hand, Request: m.Request, Course: *m.Course, Events: m.Events, Book: m.Book,
	}, "", " ")
	if err != nil {
		return nil, fmt.Errorf("export: session: %w", err)
	}
	return append(b, '\n'), nil
}

// SessionCSV is a session as a table: a line each for every heat, reading, fault and note, in
// the order in which they happened, with figures as numbers and times of the smith's clock.
func SessionCSV(m Made) ([]byte, error) {
	head := []string{"what", "at", "heat", "plannedHeat", "work", "fireS", "outC", "workS", "plannedS", "blows", "counted", "quantity", "value", "planned", "readHotMm", "placeMm", "depthMm", "step", "tempC", "bathC", "timeS", "warpMm", "file", "grainNumber", "hrc", "text"}
	type line struct {
		ms    int64
		cells map[string]string
	}
	var lines []line
	num := func(v float64) string { return strconv.FormatFloat(math.Round(v*100)/100, 'f', -1, 64) }
	for i := range m.Book.Heats {
		h := &m.Book.Heats[i]
		c := map[string]string{
			"what": "heat", "heat": strconv.Itoa(h.Number), "plannedHeat": strconv.Itoa(h.Heat), "work": m.work(h), "outC": num(h.OutC), "workS": num(h.WorkS), "plannedS": num(h.PlanS),
			"blows": strconv.Itoa(h.Blows), "counted": strconv.FormatBool(h.Counted),
		}
		if h.FireS > 0 {
			c["fireS"] = num(h.FireS)
		}
		lines = append(lines, line{h.OutMs, c})
	}
	for _, list := range [][]session.Told{m.Book.Readings, m.Book.Faults, m.Book.Notes, m.Book.Treatment} {
		for i := range list {
			t := &list[i]
			c := map[string]string{"what": string(t.Kind), "heat": strconv.Itoa(t.OfTrip), "plannedHeat": strconv.Itoa(t.OfHeat), "text": text.Defused(t.Text)}
			if r := t.Reading; r != nil {
				c["quantity"], c["value"] = string(r.Quantity), num(r.Mm+r.MassG+r.TempC)
				if r.AtMm > 0 {
					c["placeMm"] = num(r.AtMm)
				}
				if r.Hot && r.ReadMm > 0 { // as the calipers said it, beside what it is cold
					c["readHotMm"] = num(r.ReadMm)
				}
				if t.Wanted {
					c["planned"] = num(t.WantMm)
				}
			}
			if f := t.Fault; f != nil {
				c["quantity"], c["placeMm"], c["depthMm"] = string(f.Kind), num(f.AtMm), num(f.DepthMm)
			}
			if m.Course.TreatAt(t.Step) >= 0 {
				c["heat"], c["plannedHeat"], c["step"] = "", "", t.Step
			}
			if v := t.Seen; v != nil {
				for k, f := range map[string]float64{"tempC": v.TempC, "bathC": v.BathC, "timeS": v.TimeS, "warpMm": v.WarpMm, "grainNumber": v.GrainNumber, "hrc": v.HRC} {
					if f != 0 {
						c[k] = num(f)
					}
				}
				c["file"] = string(v.File)
			}
			lines = append(lines, line{t.OnMs, c})
		}
	}
	sort.SliceStable(lines, func(i, j int) bool { return lines[i].ms < lines[j].ms })
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	rows := [][]string{head}
	for _, l := range lines {
		l.cells["at"] = m.when(l.ms).Format("2006-01-02 15:04:05")
		row := make([]string, len(head))
		for i, k := range head {
			row[i] = l.cells[k]
		}
		rows = append(rows, row)
	}
	if err := w.WriteAll(rows); err != nil {
		return nil, fmt.Errorf("export: csv: %w", err)
	}
	return b.Bytes(), nil
}

func (m *Made) when(ms int64) time.Time {
	if m.Zone == nil {
		return time.UnixMilli(ms)
	}
	return time.UnixMilli(ms).In(m.Zone)
}

// work is what was done in a heat, in words.
func (m *Made) work(h *session.HeatDone) string {
	var out []string
	for _, k := range h.Steps {
		out = appendNew(out, text.Say("op."+m.Course.Steps[k.Step].Kind, nil))
	}
	return strings.Join(out, "; ")
}
