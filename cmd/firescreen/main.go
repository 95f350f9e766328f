//go:build js && wasm

// Command firescreen is the core's fold of a session, for the page: the same code that the
// server runs, so that a screen at the anvil goes on alone while nothing else is in reach. It
// puts functions of JSON texts on the page's global object, under firescreen.
package main

import (
	"encoding/json"
	"errors"
	"syscall/js"

	"coldember/core/fact"
	"coldember/core/harden"
	"coldember/core/quantity"
	"coldember/core/session"
)

var (
	course *session.Course
	live   *session.Live
)

// give wraps a function of the page: its first argument is a JSON text, its answer another.
func give(f func(args []js.Value) (any, error)) js.Func {
	return js.FuncOf(func(_ js.Value, args []js.Value) any {
		v, err := f(args)
		if err != nil {
			v = map[string]any{"error": err.Error()}
		}
		b, err := json.Marshal(v)
		if err != nil {
			return `{"error":"answer"}`
		}
		return string(b)
	})
}

func open(args []js.Value) (any, error) {
	c := &session.Course{}
	if err := json.Unmarshal([]byte(args[0].String()), c); err != nil {
		return nil, err
	}
	l, err := session.NewLive(c)
	if err != nil {
		return nil, err
	}
	course, live = c, l
	return true, nil
}

func add(args []js.Value) (any, error) {
	var events []session.Event
	if err := json.Unmarshal([]byte(args[0].String()), &events); err != nil {
		return nil, err
	}
	live.Add(events)
	return true, nil
}

func drop(args []js.Value) (any, error) {
	live.Drop(args[0].String())
	return true, nil
}

func show(args []js.Value) (any, error) {
	return live.Show(args[0].String(), int64(args[1].Float())), nil
}

// check says what of an event cannot be.
func check(args []js.Value) (any, error) {
	var e session.Event
	if err := json.Unmarshal([]byte(args[0].String()), &e); err != nil {
		return nil, err
	}
	return session.Problems(&e, course), nil
}

// reading reads what was typed: quantity, text, place, units.
func reading(args []js.Value) (any, error) {
	r, err := session.ParseReading(session.Quantity(args[0].String()), args[1].String(), args[2].String(), quantity.System(args[3].String()))
	var wrong *session.FieldError
	var text *quantity.ParseError
	if errors.As(err, &wrong) && errors.As(err, &text) {
		return map[string]any{"problems": []map[string]any{{"field": wrong.Field, "code": text.Code, "found": text.Found}}}, nil
	}
	return map[string]any{"reading": r, "problems": fact.FieldErrors{}}, err
}

// seen reads what was seen of a step of the treatment, each as typed: a JSON object of texts by
// sight, whether the step lasts seconds, units.
func seen(args []js.Value) (any, error) {
	var typed map[harden.Sight]string
	if err := json.Unmarshal([]byte(args[0].String()), &typed); err != nil {
		return nil, err
	}
	s := session.Seen{}
	for what, said := range typed {
		err := session.ParseSeen(what, said, args[1].Bool(), quantity.System(args[2].String()), &s)
		var wrong *session.FieldError
		var text *quantity.ParseError
		if errors.As(err, &wrong) && errors.As(err, &text) {
			return map[string]any{"problems": []map[string]any{{"field": wrong.Field, "code": text.Code, "found": text.Found}}}, nil
		}
		if err != nil {
			return nil, err
		}
	}
	return map[string]any{"seen": s, "problems": fact.FieldErrors{}}, nil
}

func main() {
	js.Global().Set("firescreen", map[string]any{
		"open": give(open), "add": give(add), "drop": give(drop), "show": give(show), "check": give(check), "reading": give(reading), "seen": give(seen),
		"earOpen": give(earOpen), "earFresh": give(earFresh), "earTeach": give(earTeach), "hear": give(hear),
	})
	select {}
}
