package network

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/sha256"
	"crypto/tls"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/pem"
	"errors"
	"fmt"
	"io/fs"
	"math/big"
	"net"
	"net/netip"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// How long a certificate is good, and how long before its end it is made anew.
const (
	lasts  = 300 * 24 * time.Hour
	renews = 14 * 24 * time.Hour
)

const (
	keyFile  = "key.pem"
	certFile = "certificate.pem"
)

// certificate is the one that was kept where it is good for these addresses, or else a new one; fresh tells which, where there was
// one before.
func certificate(dir string, at []netip.Addr, now time.Time) (cert tls.Certificate, fresh bool, err error) {
	kept, err := tls.LoadX509KeyPair(filepath.Join(dir, certFile), filepath.Join(dir, keyFile))
	if err == nil && good(kept.Leaf, at, now) {
		return kept, false, nil
	}
	before := err == nil || !errors.Is(err, fs.ErrNotExist)
	key, ok := kept.PrivateKey.(*ecdsa.PrivateKey)
	if !ok {
		if key, err = ecdsa.GenerateKey(elliptic.P256(), rand.Reader); err != nil {
			return cert, false, err
		}
	}
	if cert, err = issue(dir, key, at, now); err != nil {
		return cert, false, fmt.Errorf("the certificate could not be kept in %s: %w", dir, err)
	}
	return cert, before, nil
}

// good tells whether a certificate is for just these addresses, now and for a while.
func good(c *x509.Certificate, at []netip.Addr, now time.Time) bool {
	var of []netip.Addr
	for _, ip := range c.IPAddresses {
		a, _ := netip.AddrFromSlice(ip)
		of = append(of, a.Unmap())
	}
	return slices.Equal(of, at) && now.After(c.NotBefore) && now.Add(renews).Before(c.NotAfter)
}

func issue(dir string, key *ecdsa.PrivateKey, at []netip.Addr, now time.Time) (tls.Certificate, error) {
	serial, err := rand.Int(rand.Reader, new(big.Int).Lsh(big.NewInt(1), 120))
	if err != nil {
		return tls.Certificate{}, err
	}
	template := &x509.Certificate{SerialNumber: serial, Subject: pkix.Name{CommonName: "Undaris on this network"},
		NotBefore: now.Add(-time.Hour), NotAfter: now.Add(lasts), KeyUsage: x509.KeyUsageDigitalSignature,
		ExtKeyUsage: []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth}, BasicConstraintsValid: true}
	for _, a := range at {
		template.IPAddresses = append(template.IPAddresses, net.IP(a.AsSlice()))
	}
	der, err := x509.CreateCertificate(rand.Reader, template, template, key.Public(), key)
	if err != nil {
		return tls.Certificate{}, err
	}
	private, err := x509.MarshalPKCS8PrivateKey(key)
	if err != nil {
		return tls.Certificate{}, err
	}
	public, secret := pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: der}), pem.EncodeToMemory(&pem.Block{Type: "PRIVATE KEY", Bytes: private})
	if err := errors.Join(keep(dir, keyFile, secret), keep(dir, certFile, public)); err != nil {
		return tls.Certificate{}, err
	}
	return tls.X509KeyPair(public, secret)
}

// Fingerprint is the SHA-256 of a certificate as browsers show it, in pairs.
func fingerprint(cert tls.Certificate) string {
	if len(cert.Certificate) == 0 {
		return ""
	}
	sum := sha256.Sum256(cert.Certificate[0])
	return strings.ReplaceAll(strings.ToUpper(fmt.Sprintf("% x", sum[:])), " ", ":")
}

// keep writes a file that its owner alone can read, whole or not at all.
func keep(dir, name string, data []byte) error {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return err
	}
	to, err := os.CreateTemp(dir, name+"-") // with mode 0600
	if err != nil {
		return err
	}
	_, err = to.Write(data)
	if err = errors.Join(err, to.Sync(), to.Close()); err == nil {
		err = os.Rename(to.Name(), filepath.Join(dir, name))
	}
	if err != nil {
		os.Remove(to.Name())
	}
	return err
}
