// Package demo makes the made-up codebase of the demo and its review.
package demo

import (
	"context"

	"jantel/server"
)

// Make builds the demo's repository in dir.
func Make(ctx context.Context, dir string) error { return nil }

// Fill takes the repository in.
func Fill(ctx context.Context, s *server.Server, dir string) error { return nil }
