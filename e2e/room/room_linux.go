// Package room gives a test a network of its own, in which nobody else is: a namespace of Linux with an address of its own. Only there a
// test listens on anything but 127.0.0.1.
package room

import (
	"net"
	"os"
	"os/exec"
	"syscall"
	"testing"
	"unsafe"

	"golang.org/x/sys/unix"
)

// Address is that of this machine there.
const Address = "192.168.77.1"

const within = "ROOM"

// Inside tells whether this process is in a network of its own. Where it is not, it runs the test in one, tells how that went, and
// answers false.
func Inside(t *testing.T) bool {
	t.Helper()
	if os.Getenv(within) != "" {
		return true
	}
	cmd := exec.Command(os.Args[0], "-test.run=^"+t.Name()+"$", "-test.v", "-test.timeout=30m")
	cmd.Env = append(os.Environ(), within+"=yes")
	cmd.SysProcAttr = &syscall.SysProcAttr{Cloneflags: syscall.CLONE_NEWNET}
	if os.Getuid() != 0 {
		cmd.SysProcAttr.Cloneflags |= syscall.CLONE_NEWUSER
		cmd.SysProcAttr.UidMappings = []syscall.SysProcIDMap{{HostID: os.Getuid(), Size: 1}}
		cmd.SysProcAttr.GidMappings = []syscall.SysProcIDMap{{HostID: os.Getgid(), Size: 1}}
	}
	out, err := cmd.CombinedOutput()
	if err != nil {
		t.Fatalf("in a network of its own: %v\n%s", err, out)
	}
	t.Logf("in a network of its own:\n%s", out)
	return false
}

// Open gives the network of this process its addresses, where it is one of its own. It is called before anything listens.
func Open() error {
	if os.Getenv(within) == "" {
		return nil
	}
	s, err := unix.Socket(unix.AF_INET, unix.SOCK_DGRAM, 0)
	if err != nil {
		return err
	}
	defer unix.Close(s)
	ask := func(name string, request uintptr, fill func(*unix.Ifreq) error) error {
		r, err := unix.NewIfreq(name)
		if err != nil {
			return err
		}
		if err := fill(r); err != nil {
			return err
		}
		if _, _, failed := unix.Syscall(unix.SYS_IOCTL, uintptr(s), request, uintptr(unsafe.Pointer(r))); failed != 0 {
			return failed
		}
		return nil
	}
	up := func(r *unix.Ifreq) error { r.SetUint16(unix.IFF_UP | unix.IFF_RUNNING); return nil }
	if err := ask("lo", unix.SIOCSIFFLAGS, up); err != nil {
		return err
	}
	return ask("lo:1", unix.SIOCSIFADDR, func(r *unix.Ifreq) error { return r.SetInet4Addr(net.ParseIP(Address).To4()) })
}
