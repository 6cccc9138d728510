package server

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"undaris/network"
)

// NetworkBody is what the network is set to.
type NetworkBody struct {
	On        bool     `json:"on"`
	Addresses []string `json:"addresses" maxItems:"16" nullable:"false" doc:"private addresses of this machine to listen on; none: all that there are"`
}

// network switches the second listener on and off, waits for devices and puts them out.
func (s *server) network(api huma.API, n *network.Network) {
	there := func() error {
		if n == nil {
			return problem(http.StatusServiceUnavailable, "this Undaris lets no devices in")
		}
		return nil
	}
	state := func() (network.State, error) {
		if n == nil {
			return network.State{Addresses: []network.Address{}, Devices: []network.Seen{}}, nil
		}
		return n.State(), nil
	}
	get(s, api, "/api/network", "network", "Whether other devices in the network are let in, and which",
		func(context.Context, *struct{}) (network.State, error) { return state() })
	register(s, api, operation(http.MethodPut, "/api/network", "set-network", "Let other devices of the network in, or no longer", 0),
		body(func(_ context.Context, in *struct{ Body NetworkBody }) (out network.State, err error) {
			if err := there(); err != nil {
				return out, err
			}
			if !in.Body.On {
				err = n.Off()
			} else if err = n.On(in.Body.Addresses, true); err != nil {
				err = problem(http.StatusUnprocessableEntity, err.Error())
			}
			if err != nil {
				return out, err
			}
			return state()
		}))
	register(s, api, operation(http.MethodPost, "/api/network/pairing", "pair", "Wait for a device, with a new code", 0),
		body(func(context.Context, *struct{}) (out network.State, err error) {
			if err := there(); err != nil {
				return out, err
			}
			if err := n.Pair(); err != nil {
				return out, problem(http.StatusConflict, err.Error())
			}
			return state()
		}))
	register(s, api, operation(http.MethodDelete, "/api/network/pairing", "end-pairing", "Wait for a device no longer", 0),
		body(func(context.Context, *struct{}) (out network.State, err error) {
			if err := there(); err != nil {
				return out, err
			}
			n.EndPairing()
			return state()
		}))
	register(s, api, operation(http.MethodDelete, "/api/network/devices/{id}", "put-out", "End the session of a device and close what it has open", 0),
		body(func(_ context.Context, in *struct {
			ID string `path:"id" maxLength:"32"`
		}) (out network.State, err error) {
			if err := there(); err != nil {
				return out, err
			}
			was, err := n.PutOut(in.ID)
			if err == nil && !was {
				err = problem(http.StatusNotFound, "there is no such device")
			}
			if err != nil {
				return out, err
			}
			return state()
		}))
}
