// Package load puts a server and its database under load: it kills them again and again and holds what is stored
// to what was acknowledged (make crash), and measures what two hundred people wait for (make bench). It holds
// tests alone.
package load
