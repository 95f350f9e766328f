package export

import (
	"bytes"
	"strings"
	"time"
	"unicode/utf8"
)

// Appointment is a stretch of time in a calendar; Alarm rings at its end.
type Appointment struct {
	ID, Title string
	From, To  time.Time
	Alarm     bool
}

// Calendar writes appointments as iCalendar (RFC 5545): times of the world's clock, lines of at
// most 75 bytes, texts escaped.
func Calendar(all []Appointment, now time.Time) []byte {
	var b bytes.Buffer
	line := func(s string) {
		for len(s) > icsLineBytes {
			at := icsLineBytes
			for !utf8.RuneStart(s[at]) {
				at--
			}
			b.WriteString(s[:at] + "\r\n ")
			s = s[at:]
		}
		b.WriteString(s + "\r\n")
	}
	stamp := func(t time.Time) string { return t.UTC().Format("20060102T150405Z") }
	line("BEGIN:VCALENDAR")
	line("VERSION:2.0")
	line("PRODID:-//Cold Ember//Timers//EN")
	for i := range all {
		a := &all[i]
		line("BEGIN:VEVENT")
		line("UID:" + icsText(a.ID) + "@coldember")
		line("DTSTAMP:" + stamp(now))
		line("DTSTART:" + stamp(a.From))
		line("DTEND:" + stamp(a.To))
		line("SUMMARY:" + icsText(a.Title))
		if a.Alarm {
			line("BEGIN:VALARM")
			line("ACTION:DISPLAY")
			line("DESCRIPTION:" + icsText(a.Title))
			line("TRIGGER;RELATED=END:PT0S")
			line("END:VALARM")
		}
		line("END:VEVENT")
	}
	line("END:VCALENDAR")
	return b.Bytes()
}

// icsLineBytes is how long a line may be, without its ending and the space that goes on.
const icsLineBytes = 73

func icsText(s string) string {
	return strings.NewReplacer("\\", "\\\\", ";", "\\;", ",", "\\,", "\r\n", "\\n", "\n", "\\n", "\r", "\\n").Replace(s)
}
