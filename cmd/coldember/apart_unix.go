//go:build unix

package main

import "syscall"

// apart lets a server go on when who started it ends.
func apart() *syscall.SysProcAttr { return &syscall.SysProcAttr{Setsid: true} }
