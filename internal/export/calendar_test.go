package export_test

import (
	"strings"
	"testing"
	"time"

	"coldember/internal/export"

	"github.com/stretchr/testify/assert"
)

// TestACalendarIsOfTheWorldsClock, its lines short enough, its texts escaped.
func TestACalendarIsOfTheWorldsClock(t *testing.T) {
	from := time.Date(2026, 10, 25, 0, 30, 0, 0, time.FixedZone("summer", 2*3600))
	title := "Rigging knife: temper, first; " + strings.Repeat("ü", 60)
	text := string(export.Calendar([]export.Appointment{{ID: "a-1", Title: title, From: from, To: from.Add(4 * time.Hour), Alarm: true}}, from))
	assert.Contains(t, text, "DTSTART:20261024T223000Z\r\n")
	assert.Contains(t, text, "DTEND:20261025T023000Z\r\n")
	for _, l := range strings.Split(strings.TrimSuffix(text, "\r\n"), "\r\n") {
		assert.LessOrEqual(t, len(l), 75)
		assert.NotContains(t, l, "\n")
	}
	whole := strings.ReplaceAll(text, "\r\n ", "")
	assert.Contains(t, whole, `SUMMARY:Rigging knife: temper\, first\; `+strings.Repeat("ü", 60)+"\r\n")
	assert.Equal(t, 1, strings.Count(whole, "BEGIN:VALARM"))
}
