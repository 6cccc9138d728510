package network

import (
	"fmt"
	"net"
	"net/netip"
	"slices"
)

// Addresses are the private addresses of this machine, in order: those of a home or a rehearsal room (RFC 1918, and the unique local
// ones of IPv6, RFC 4193). Others are no place to listen on.
func Addresses() ([]netip.Addr, error) {
	all, err := net.InterfaceAddrs()
	if err != nil {
		return nil, err
	}
	var out []netip.Addr
	for _, a := range all {
		p, err := netip.ParsePrefix(a.String())
		if err == nil && p.Addr().Unmap().IsPrivate() && !slices.Contains(out, p.Addr().Unmap()) {
			out = append(out, p.Addr().Unmap())
		}
	}
	slices.SortFunc(out, netip.Addr.Compare)
	return out, nil
}

// named reads addresses to listen on. Those that anybody can reach are refused, and so is what stands for all addresses.
func named(texts []string) ([]netip.Addr, error) {
	var out []netip.Addr
	for _, text := range texts {
		a, err := netip.ParseAddr(text)
		switch {
		case err != nil:
			return nil, fmt.Errorf("%q is no address; write one of this machine, such as 192.168.0.10", text)
		case a.IsUnspecified():
			return nil, fmt.Errorf("%s stands for every address there is; name one of this machine in your own network", text)
		case !a.IsPrivate():
			return nil, fmt.Errorf("%s is no private address; Undaris is there for your own network alone", text)
		}
		if a = a.Unmap(); !slices.Contains(out, a) {
			out = append(out, a)
		}
	}
	slices.SortFunc(out, netip.Addr.Compare)
	return out, nil
}
