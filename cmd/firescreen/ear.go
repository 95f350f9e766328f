//go:build js && wasm

package main

import (
	"encoding/binary"
	"encoding/json"
	"math"
	"syscall/js"

	"coldember/core/listen"
)

var (
	ear     *listen.Ear
	counted listen.Count
	sound   []byte
	samples []float32
)

// earOpen begins to listen: samples a second, what was learned of the anvil before.
func earOpen(args []js.Value) (any, error) {
	var a listen.Anvil
	if err := json.Unmarshal([]byte(args[1].String()), &a); err != nil {
		return nil, err
	}
	e, err := listen.New(args[0].Float(), a)
	if err != nil {
		return nil, err
	}
	ear, counted = e, listen.Count{}
	return true, nil
}

// earFresh counts from nought; told that the piece is out, it begins a step to be taught from, else it ends it.
func earFresh(args []js.Value) (any, error) {
	counted = listen.Count{}
	if args[0].Bool() {
		ear.Fresh()
	} else {
		ear.Rest()
	}
	return true, nil
}

// earTeach has it learn from the step, which had so many blows; false where it did not.
func earTeach(args []js.Value) (any, error) {
	return map[string]any{"taught": ear.Teach(args[0].Int()), "anvil": ear.Anvil()}, nil
}

// hear takes samples, as the bytes of 32-bit floats, and answers what was struck and what it means.
func hear(args []js.Value) (any, error) {
	n := args[0].Get("length").Int() / 4 * 4
	if cap(sound) < n {
		sound, samples = make([]byte, n), make([]float32, n/4)
	}
	js.CopyBytesToGo(sound[:n], args[0])
	for i := range n / 4 {
		samples[i] = math.Float32frombits(binary.LittleEndian.Uint32(sound[4*i:]))
	}
	hits := ear.Hear(samples[:n/4])
	signs := counted.Take(hits, ear.HeardS())
	a := ear.Anvil()
	out := map[string]any{"count": counted, "signs": signs, "hits": hits, "learned": min(len(a.Levels), listen.Wanted), "wanted": listen.Wanted, "unsure": ear.Unsure(), "known": a.Known()}
	if len(hits) > 0 {
		out["anvil"] = a
	}
	return out, nil
}
