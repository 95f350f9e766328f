package text

import (
	"strconv"
	"time"
)

// Day is a date as the language writes it.
func Day(t time.Time) string {
	return Say("date.day", map[string]string{
		"d": strconv.Itoa(t.Day()), "month": Say("date.month."+strconv.Itoa(int(t.Month())), nil), "y": strconv.Itoa(t.Year()),
	})
}

// DayTime is a date with the hour of that day.
func DayTime(t time.Time) string { return Day(t) + " " + t.Format("15:04") }
