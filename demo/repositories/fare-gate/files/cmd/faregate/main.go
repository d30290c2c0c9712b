package main

import (
	"flag"
	"log"
	"os"
	"os/signal"

	"quillhaven.example/faregate/internal/config"
	"quillhaven.example/faregate/internal/gate"
)

func main() {
	path := flag.String("config", "config/old-pier.json", "configuration of this gate")
	flag.Parse()

	settings, err := config.Load(*path)
	if err != nil {
		log.Fatalf("faregate: %v", err)
	}
	g := gate.New(settings)
	stop := make(chan os.Signal, 1)
	signal.Notify(stop, os.Interrupt)
	go g.Run()
	<-stop
	g.Close()
}
