// Command testserver runs a command, such as all tests, with one database server
// beside it, which ends with it.
//
// usage: testserver COMMAND [ARGUMENT ...]
//
// The server is fast and keeps nothing. Its address stands in the environment of
// the command (storetest.Address). Where this process is killed, the server and the
// command are too.
package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"os/signal"
	"path/filepath"
	"runtime"
	"syscall"

	"patientladder/store/mariadb"
	"patientladder/store/storetest"
)

func main() {
	if len(os.Args) < 2 {
		fmt.Fprintln(os.Stderr, "usage: testserver COMMAND [ARGUMENT ...]")
		os.Exit(2)
	}
	code, err := run(os.Args[1], os.Args[2:])
	if err != nil {
		fmt.Fprintln(os.Stderr, "testserver:", err)
	}
	os.Exit(code)
}

func run(name string, args []string) (code int, err error) {
	dir, err := storetest.Folder()
	if err != nil {
		return 1, err
	}
	defer os.RemoveAll(dir)
	server, err := mariadb.StartTied(context.Background(), filepath.Join(dir, "db"), mariadb.Fast...)
	if err != nil {
		return 1, err
	}
	defer storetest.End(server)
	runtime.LockOSThread() // the command is tied to this thread
	cmd := exec.Command(name, args...)
	cmd.Stdin, cmd.Stdout, cmd.Stderr = os.Stdin, os.Stdout, os.Stderr
	cmd.Env = append(os.Environ(), storetest.Address+"="+server.DSN(""))
	cmd.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGTERM}
	signal.Ignore(os.Interrupt) // the command has it too, and ends by itself
	err = cmd.Run()
	if failed := (*exec.ExitError)(nil); errors.As(err, &failed) {
		return max(failed.ExitCode(), 1), nil
	}
	if err != nil {
		return 1, err
	}
	return 0, nil
}
