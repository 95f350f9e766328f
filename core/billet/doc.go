// Package billet is layered steel: what is laid, what each step of welding, drawing and restacking
// leaves of it, and which layer shows at a point of the finished face. It knows steels by their id
// and nothing of blades but thickness shares.
package billet
