// Package mailbox stands in for a mail server and a webhook's receiver: it takes whatever comes, and says so. It is for the demo, for
// tests, and for whoever wants to see what would be sent.
package mailbox

import (
	"context"
	"errors"
	"io"
	"net"
	"net/http"
	"time"

	"github.com/emersion/go-smtp"
)

// Message is something that came.
type Message struct {
	By        string `json:"by"` // mail or webhook
	From      string `json:"from,omitempty"`
	To        string `json:"to"`
	Signature string `json:"signature,omitempty"`
	ID        string `json:"id,omitempty"`
	Text      string `json:"text"`
}

// most is how large a message may be, in bytes.
const most = 4 << 20

// Box takes messages and hands them on.
type Box struct{ take func(Message) }

// New is a box that hands messages to take, one at a time.
func New(take func(Message)) *Box {
	one := make(chan struct{}, 1)
	return &Box{func(m Message) {
		one <- struct{}{}
		defer func() { <-one }()
		take(m)
	}}
}

// Mail takes mail on a listener until ctx ends.
func (b *Box) Mail(ctx context.Context, l net.Listener) error {
	s := smtp.NewServer(b)
	s.Domain, s.MaxMessageBytes, s.ReadTimeout, s.WriteTimeout = "localhost", most, 20*time.Second, 20*time.Second
	defer context.AfterFunc(ctx, func() { _ = s.Close() })()
	if err := s.Serve(l); err != nil && !errors.Is(err, smtp.ErrServerClosed) && ctx.Err() == nil {
		return err
	}
	return nil
}

// Hook takes webhooks on a listener until ctx ends.
func (b *Box) Hook(ctx context.Context, l net.Listener) error {
	s := &http.Server{ReadHeaderTimeout: 10 * time.Second, Handler: http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		text, err := io.ReadAll(http.MaxBytesReader(w, r.Body, most))
		if err != nil || r.Method != http.MethodPost {
			w.WriteHeader(http.StatusBadRequest)
			return
		}
		b.take(Message{By: "webhook", To: r.URL.Path, ID: r.Header.Get("Epitrope-Id"), Signature: r.Header.Get("Epitrope-Signature"),
			Text: string(text)})
		w.WriteHeader(http.StatusNoContent)
	})}
	defer context.AfterFunc(ctx, func() { _ = s.Close() })()
	if err := s.Serve(l); err != nil && !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	return nil
}

// NewSession is one mail's.
func (b *Box) NewSession(*smtp.Conn) (smtp.Session, error) { return &session{box: b}, nil }

type session struct {
	box      *Box
	from, to string
}

func (s *session) Mail(from string, _ *smtp.MailOptions) error { s.from = from; return nil }
func (s *session) Rcpt(to string, _ *smtp.RcptOptions) error   { s.to = to; return nil }
func (s *session) Reset()                                      { s.from, s.to = "", "" }
func (s *session) Logout() error                               { return nil }

func (s *session) Data(r io.Reader) error {
	text, err := io.ReadAll(r)
	if err == nil {
		s.box.take(Message{By: "mail", From: s.from, To: s.to, Text: string(text)})
	}
	return err
}
