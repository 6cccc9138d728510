// Package network lets paired devices in: a phone or a tablet on the music stand, over TLS on private addresses of this machine.
// It is off until it is switched on, and then makes a directory of its own beside the database: the key and its certificate, what
// it was set to, and which devices were paired. None of that is in a backup.
//
// Whoever comes is a stranger until a session of theirs is known. A stranger sees the page on which a code is typed and nothing else.
package network
