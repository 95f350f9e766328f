package main

import (
	"errors"
	"io"
	"strconv"
	"strings"
	"text/tabwriter"

	"coldember/internal/text"

	"github.com/spf13/cobra"
	"github.com/spf13/pflag"
)

// said prints words of the catalogue, a line of them.
func said(out io.Writer, code string, with map[string]string) error {
	return printf(out, "%s\n", text.Say(code, with))
}

// codeOf is the path of a command in the catalogue: "rack.import"; of the first one "coldember".
func codeOf(c *cobra.Command) string {
	if !c.HasParent() {
		return c.Name()
	}
	path := strings.Split(c.CommandPath(), " ")[1:]
	return strings.Join(path, ".")
}

// flagCode has the words of a flag: a command's own, or those that all have for it.
func flagCode(c *cobra.Command, f *pflag.Flag) string {
	if own := "cli.flag." + codeOf(c) + "." + f.Name; text.Has(own) {
		return own
	}
	return "cli.flag." + f.Name
}

// speak gives a command and those under it their words, the way their use is told, and what they
// say of what was typed wrong.
func speak(c *cobra.Command, with map[string]string) {
	if c.Short == "" {
		c.Short = text.Say("cli.help."+codeOf(c), with)
	}
	if long := "cli.help." + codeOf(c) + ".long"; c.Long == "" && text.Has(long) {
		c.Long = text.Say(long, with)
	}
	c.InitDefaultHelpFlag()
	c.InitDefaultVersionFlag()
	c.LocalFlags().VisitAll(func(f *pflag.Flag) {
		f.Usage = text.Say(flagCode(c, f), map[string]string{"file": f.Usage})
	})
	c.SetFlagErrorFunc(flagError)
	c.SetUsageFunc(usage)
	c.SetHelpFunc(help)
	for _, k := range c.Commands() {
		speak(k, with)
	}
}

// usage tells how a command is called.
func usage(c *cobra.Command) error {
	out := c.OutOrStderr()
	line := c.CommandPath()
	if _, args, ok := strings.Cut(c.Use, " "); ok {
		line += " " + args
	}
	if err := printf(out, "%s\n  %s\n", text.Say("cli.usage", nil), line); err != nil {
		return err
	}
	if c.HasExample() {
		if err := printf(out, "\n%s\n%s\n", text.Say("cli.example", nil), c.Example); err != nil {
			return err
		}
	}
	var commands, flags [][2]string
	for _, k := range c.Commands() {
		if k.IsAvailableCommand() {
			commands = append(commands, [2]string{k.Name(), k.Short})
		}
	}
	c.LocalFlags().VisitAll(func(f *pflag.Flag) {
		words := f.Usage
		if d := f.DefValue; d != "" && d != "0" && d != "false" {
			words += " " + text.Say("cli.default", map[string]string{"value": strings.Trim(d, "[]")})
		}
		flags = append(flags, [2]string{"--" + f.Name, words})
	})
	for _, part := range []struct {
		code string
		rows [][2]string
	}{{"cli.commands", commands}, {"cli.flags", flags}} {
		if len(part.rows) == 0 {
			continue
		}
		if err := printf(out, "\n%s\n", text.Say(part.code, nil)); err != nil {
			return err
		}
		w := tabwriter.NewWriter(out, 0, 0, 3, ' ', 0)
		for _, r := range part.rows {
			if err := printf(w, "  %s\t%s\n", r[0], r[1]); err != nil {
				return err
			}
		}
		if err := w.Flush(); err != nil {
			return err
		}
	}
	return nil
}

// help is what a command is for, and how it is called.
func help(c *cobra.Command, _ []string) {
	words := c.Long
	if words == "" {
		words = c.Short
	}
	c.SetOut(c.OutOrStdout())
	c.SetErr(c.OutOrStdout())
	_ = printf(c.OutOrStdout(), "%s\n\n", words)
	_ = usage(c)
}

// flagError says what is wrong with a flag.
func flagError(c *cobra.Command, err error) error {
	with := map[string]string{"command": c.CommandPath()}
	var none *pflag.NotExistError
	var bare *pflag.ValueRequiredError
	var wrong *pflag.InvalidValueError
	switch {
	case errors.As(err, &none):
		with["flag"] = none.GetSpecifiedName()
		return sayError("cli.noFlag", with)
	case errors.As(err, &bare):
		with["flag"] = bare.GetSpecifiedName()
		return sayError("cli.bareFlag", with)
	case errors.As(err, &wrong):
		with["flag"], with["value"] = wrong.GetFlag().Name, wrong.GetValue()
		return sayError("cli.wrongFlag", with)
	}
	return err
}

// wants checks how many arguments a command is given: least to most.
func wants(least, most int) cobra.PositionalArgs {
	return func(c *cobra.Command, args []string) error {
		with := map[string]string{"command": c.CommandPath(), "n": strconv.Itoa(least), "got": strconv.Itoa(len(args))}
		switch {
		case c.HasSubCommands() && len(args) > 0 && most == 0:
			with["found"] = args[0]
			return sayError("cli.noCommand", with)
		case len(args) < least:
			return sayError("cli.tooFew", with)
		case len(args) > most:
			with["found"] = args[most]
			return sayError("cli.tooMany", with)
		}
		return nil
	}
}

const anyNumber = 1 << 20
