package main

import (
	"strconv"
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
		Use: "day NAME...", Args: wants(1, anyNumber),
		RunE: func(c *cobra.Command, args []string) error {
			from, err := time.ParseInLocation("2006-01-02T15:04", begin, time.Local)
			if err != nil {
				return sayError("cli.wrongBegin", map[string]string{"example": "2026-11-26T08:00", "found": begin})
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
				names, tasks := map[string]string{}, map[string]string{}
				for _, j := range d.Jobs {
					names[j.ID] = j.Name
					for _, k := range j.Tasks {
						tasks[j.ID+k.ID] = taskWords(k)
					}
				}
				for _, p := range d.Placed {
					at := func(minutes float64) string {
						return from.Add(time.Duration(minutes * float64(time.Minute))).Format("15:04")
					}
					what := tasks[p.Job+p.Task]
					if p.Oven >= 0 {
						what = text.Say("cli.oven", map[string]string{"what": what, "n": strconv.Itoa(p.Oven + 1)})
					}
					if err := printf(c.OutOrStdout(), "%s–%s  %s: %s\n", at(p.FromMin), at(p.ToMin), names[p.Job], what); err != nil {
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
					if err := said(c.OutOrStdout(), "cli.leftOut", map[string]string{"name": n}); err != nil {
						return err
					}
				}
				return nil
			})
		},
	}
	c.Flags().StringVar(&data, "data", "", "")
	c.Flags().StringVar(&begin, "begin", time.Now().Format("2006-01-02")+"T08:00", "")
	c.Flags().IntSliceVar(&holds, "ovens", []int{4}, "")
	c.Flags().BoolVar(&ask.Common, "common", false, "")
	c.Flags().BoolVar(&ask.Cycles, "cycles", false, "")
	c.Flags().Float64Var(&ask.GlueMin, "glue", 0, "")
	c.Flags().BoolVar(&calendar, "ics", false, "")
	return c
}

// taskWords says what is done; what only cools stands in no calendar, and here has words of its own.
func taskWords(k harden.Task) string {
	if k.What == "cool" {
		return text.Say("cli.cools", nil)
	}
	return text.Say("day.task."+k.What, text.Figures(map[string]float64{"ovenC": k.OvenC}, ""))
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
		return nil, sayError("cli.noPiece", map[string]string{"found": name})
	}
	return ids, nil
}
