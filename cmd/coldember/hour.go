package main

import (
	"fmt"
	"os"

	"coldember/internal/export"
	"coldember/internal/work"

	"github.com/spf13/cobra"
)

// hourCommand tells what hours at the forge tell, or writes the sheet of paper for one.
func hourCommand() *cobra.Command {
	var data, sheet string
	c := &cobra.Command{
		Use: "hour", Args: wants(0, 0),
		RunE: func(c *cobra.Command, _ []string) error {
			return withData(c.Context(), data, func(w *work.Work) error {
				shop, err := w.Shop(c.Context())
				if err != nil {
					return err
				}
				units := shop.Doc.System()
				if sheet != "" {
					pdf, err := export.HourSheet(shop.Doc.Paper)
					if err != nil {
						return err
					}
					return os.WriteFile(sheet, pdf, 0o600)
				}
				all, err := w.Hours(c.Context())
				if err != nil {
					return err
				}
				for i := range all {
					for _, line := range export.HourLines(&all[i].Found, units) {
						if _, err := fmt.Fprintf(c.OutOrStdout(), "%s: %s\n", all[i].Hour.Smith, line); err != nil {
							return err
						}
					}
				}
				if len(all) == 0 {
					return said(c.OutOrStdout(), "hour.nothing", nil)
				}
				return nil
			})
		},
	}
	c.Flags().StringVar(&data, "data", "", "")
	c.Flags().StringVar(&sheet, "sheet", "", "")
	return c
}
