package main

import (
	"fmt"
	"strings"
	"time"

	"coldember/core/harden"
	"coldember/internal/api"
	"coldember/internal/text"
	"coldember/internal/work"

	"github.com/spf13/cobra"
)

func dayCommand() *cobra.Command {
	var data, begin string
	var holds []int
	var calendar bool
	var ask work.DayAsked
	c := &cobra.Command{
		Use: "day NAME...", Short: "Lay out the hardening and tempering of pieces, so that ovens and hands do not collide", Args: cobra.MinimumNArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			from, err := time.ParseInLocation("2006-01-02T15:04", begin, time.Local)
			if err != nil {
				return fmt.Errorf("--begin wants a time such as 2026-11-26T08:00, not %q", begin)
			}
			return withData(c.Context(), data, func(w *work.Work) error {
				ids, err := pieceNames(c, w, args)
				if err != nil {
					return err
				}
				ask.Pieces = ids
				for _, n := range holds {
					ask.Ovens = append(ask.Ovens, harden.Oven{Holds: n})
				}
				d, err := w.Day(c.Context(), ask)
				if err != nil {
					return err
				}
				if calendar {
					_, err := c.OutOrStdout().Write(api.DayCalendar(&d, from))
					return err
				}
				names := map[string]string{}
				for _, j := range d.Jobs {
					names[j.ID] = j.Name
				}
				for _, p := range d.Placed {
					at := func(minutes float64) string {
						return from.Add(time.Duration(minutes * float64(time.Minute))).Format("15:04")
					}
					where := ""
					if p.Oven >= 0 {
						where = fmt.Sprintf(", oven %d", p.Oven+1)
					}
					if err := printf(c.OutOrStdout(), "%s–%s  %s: %s%s\n", at(p.FromMin), at(p.ToMin), names[p.Job], p.Task, where); err != nil {
						return err
					}
				}
				for _, o := range d.Oil {
					if o.TooWarm {
						if err := printf(c.OutOrStdout(), "%s\n", text.Say("day.oilWarm", text.Figures(map[string]float64{"warmC": o.WarmC}, ""))+" "+names[o.Piece]); err != nil {
							return err
						}
					}
				}
				for _, n := range d.Without {
					if err := printf(c.OutOrStdout(), "left out: %s\n", n); err != nil {
						return err
					}
				}
				return nil
			})
		},
	}
	c.Flags().StringVar(&data, "data", "", "database file (default: your own work)")
	c.Flags().StringVar(&begin, "begin", time.Now().Format("2006-01-02")+"T08:00", "when the day begins")
	c.Flags().IntSliceVar(&holds, "ovens", []int{4}, "how many pieces each oven holds")
	c.Flags().BoolVar(&ask.Common, "common", false, "make settings that are nearly alike one")
	c.Flags().BoolVar(&ask.Cycles, "cycles", false, "thermal cycles are of the day too")
	c.Flags().Float64Var(&ask.GlueMin, "glue", 0, "minutes that the glue of a handle sets; 0: none")
	c.Flags().BoolVar(&calendar, "ics", false, "as a calendar")
	return c
}

// pieceNames finds pieces by name or id, in the order in which they are named.
func pieceNames(c *cobra.Command, w *work.Work, names []string) ([]string, error) {
	all, _, err := w.Pieces(c.Context(), false)
	if err != nil {
		return nil, err
	}
	var ids []string
next:
	for _, name := range names {
		for _, p := range all {
			if p.ID == name || strings.EqualFold(p.Doc.Name, name) {
				ids = append(ids, p.ID)
				continue next
			}
		}
		return nil, fmt.Errorf("there is no piece %q; coldember pieces lists them", name)
	}
	return ids, nil
}
