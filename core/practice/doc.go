// Package practice is forging played by hand: a bar in a fire, and every blow chosen. Each blow is the stroke that plans are
// made of (forge.Stroke), on the cells that lie under the tool as they are then: high, wide and hot; so work is local, and
// wrong work has its effects where it falls. Volume is conserved but for scale. What is played is a list of actions: from the
// same exercise, seed and actions always comes the same piece, and the last action is taken back by leaving it out.
//
// Flow, spread, friction, heat and scale are the laws of plans. When steel cracks, burns or buckles is judgement, and marked so.
package practice
