package main

import (
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"net"
	"os/signal"
	"syscall"

	"golang.org/x/sync/errgroup"

	"epitrope/internal/mailbox"
)

// runMailbox stands in for a mail server and a webhook's receiver on loopback, and prints what comes, a line each.
func runMailbox(args []string, _ io.Reader, out io.Writer, _ own) error {
	set := flag.NewFlagSet("epitrope mailbox", flag.ContinueOnError)
	mail := set.Int("mail", 2525, "port of the mail server on loopback; 0: any that is free")
	hook := set.Int("webhook", 2580, "port of the webhook's receiver on loopback; 0: any that is free")
	if err := noArguments(set, args, out); err != nil {
		return err
	}
	ctx, stop := signal.NotifyContext(context.Background(), syscall.SIGINT, syscall.SIGTERM)
	defer stop()
	listen := func(port int) (net.Listener, error) { return net.Listen("tcp", fmt.Sprintf("127.0.0.1:%d", port)) }
	byMail, err := listen(*mail)
	if err != nil {
		return err
	}
	byHook, err := listen(*hook)
	if err != nil {
		return err
	}
	fmt.Fprintf(out, "mail: smtp://%s\nwebhook: http://%s/\n", byMail.Addr(), byHook.Addr())
	lines := json.NewEncoder(out)
	box := mailbox.New(func(m mailbox.Message) { _ = lines.Encode(m) })
	group, ctx := errgroup.WithContext(ctx)
	group.Go(func() error { return box.Mail(ctx, byMail) })
	group.Go(func() error { return box.Hook(ctx, byHook) })
	return group.Wait()
}
