// Package tied starts programs that end when this process does.
package tied

import (
	"os/exec"
	"runtime"
	"syscall"
)

// Start starts a program to which the kernel sends a signal when this process ends, however
// that ends; with 0 it goes on. The channel says once how the program ended.
func Start(cmd *exec.Cmd, end syscall.Signal) (chan error, error) {
	if cmd.SysProcAttr == nil {
		cmd.SysProcAttr = &syscall.SysProcAttr{}
	}
	cmd.SysProcAttr.Pdeathsig = end
	started, done := make(chan error), make(chan error, 1)
	go func() {
		// The signal comes when the thread that started the program ends, so that thread
		// stays until the program has ended.
		runtime.LockOSThread()
		defer runtime.UnlockOSThread()
		err := cmd.Start()
		if started <- err; err == nil {
			done <- cmd.Wait()
		}
	}()
	if err := <-started; err != nil {
		return nil, err
	}
	return done, nil
}
