package shelf

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
	"math/big"
	"net"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// How long a certificate counts, and how long before its end another is made.
const (
	certFor   = 397 * 24 * time.Hour // browsers take none that counts longer
	certFresh = 30 * 24 * time.Hour
)

// Hosts are the names and addresses by which this machine is reached on its network.
func Hosts() (names []string, ips []net.IP) {
	if h, err := os.Hostname(); err == nil && h != "" {
		h = strings.ToLower(h)
		names = append(names, h)
		if !strings.Contains(h, ".") {
			names = append(names, h+".local")
		}
	}
	names = append(names, "localhost")
	all, err := net.InterfaceAddrs()
	if err != nil {
		return names, []net.IP{net.IPv4(127, 0, 0, 1)}
	}
	for _, a := range all {
		if n, ok := a.(*net.IPNet); ok && !n.IP.IsLinkLocalUnicast() && !n.IP.IsMulticast() {
			ips = append(ips, n.IP)
		}
	}
	// a shop's network before everything else
	slices.SortStableFunc(ips, func(a, b net.IP) int { return rank(a) - rank(b) })
	return names, ips
}

func rank(ip net.IP) int {
	switch {
	case ip.IsLoopback():
		return 3
	case ip.To4() == nil:
		return 2
	case ip.IsPrivate():
		return 0
	}
	return 1
}

// certificate is that of this machine: kept in a file for its owner alone, made at its first use, and anew when it runs out
// or this machine has another address.
func certificate(file string, now time.Time) (tls.Certificate, error) {
	names, ips := Hosts()
	if raw, err := os.ReadFile(file); err == nil {
		if c, err := tls.X509KeyPair(raw, raw); err == nil && counts(&c, now, ips) {
			return c, nil
		}
	} else if !errors.Is(err, os.ErrNotExist) {
		return tls.Certificate{}, fmt.Errorf("shelf: %w", err)
	}
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return tls.Certificate{}, fmt.Errorf("shelf: %w", err)
	}
	serial, err := rand.Int(rand.Reader, new(big.Int).Lsh(big.NewInt(1), 120))
	if err != nil {
		return tls.Certificate{}, fmt.Errorf("shelf: %w", err)
	}
	t := &x509.Certificate{
		SerialNumber: serial, Subject: pkix.Name{CommonName: "Cold Ember, this machine"}, NotBefore: now.Add(-time.Hour), NotAfter: now.Add(certFor),
		KeyUsage: x509.KeyUsageDigitalSignature, ExtKeyUsage: []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth}, BasicConstraintsValid: true, DNSNames: names, IPAddresses: ips,
	}
	der, err := x509.CreateCertificate(rand.Reader, t, t, &key.PublicKey, key)
	if err != nil {
		return tls.Certificate{}, fmt.Errorf("shelf: %w", err)
	}
	secret, err := x509.MarshalPKCS8PrivateKey(key)
	if err != nil {
		return tls.Certificate{}, fmt.Errorf("shelf: %w", err)
	}
	raw := append(pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: der}), pem.EncodeToMemory(&pem.Block{Type: "PRIVATE KEY", Bytes: secret})...)
	if err := writeAlone(file, raw); err != nil {
		return tls.Certificate{}, err
	}
	return tls.X509KeyPair(raw, raw)
}

// counts tells whether a certificate is still good for this machine.
func counts(c *tls.Certificate, now time.Time, ips []net.IP) bool {
	leaf, err := x509.ParseCertificate(c.Certificate[0])
	if err != nil || now.Before(leaf.NotBefore) || now.Add(certFresh).After(leaf.NotAfter) {
		return false
	}
	for _, ip := range ips {
		if !slices.ContainsFunc(leaf.IPAddresses, ip.Equal) {
			return false
		}
	}
	return true
}

// Fingerprint of a certificate as browsers show it: SHA-256, pairs of hex digits.
func Fingerprint(der []byte) string {
	sum := sha256.Sum256(der)
	out := make([]string, len(sum))
	for i, b := range sum {
		out[i] = fmt.Sprintf("%02X", b)
	}
	return strings.Join(out, ":")
}

// writeAlone writes a file that nobody else may read, whole or not at all.
func writeAlone(file string, raw []byte) error {
	f, err := os.CreateTemp(filepath.Dir(file), ".shelf-*")
	if err != nil {
		return fmt.Errorf("shelf: %w", err)
	}
	_, err = f.Write(raw)
	err = errors.Join(err, f.Chmod(0o600), f.Close())
	if err == nil {
		err = os.Rename(f.Name(), file)
	}
	if err != nil {
		_ = os.Remove(f.Name())
		return fmt.Errorf("shelf: %w", err)
	}
	return nil
}
