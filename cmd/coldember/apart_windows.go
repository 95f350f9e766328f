package main

import "syscall"

// detached is a process without a console of its own.
const detached = 0x00000008

// apart lets a server go on when who started it ends.
func apart() *syscall.SysProcAttr {
	return &syscall.SysProcAttr{CreationFlags: detached | syscall.CREATE_NEW_PROCESS_GROUP}
}
