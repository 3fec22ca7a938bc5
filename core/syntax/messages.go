package syntax

import (
	"regexp"
	"strings"

	"jantel/core/model"
)

// What sends and receives messages by name. The plain ones are about messages
// wherever they are called; the others may be about anything, such as the
// events of a page.
var (
	plainSends = Set("publish", "Publish", "PublishAsync", "sendToQueue", "produce", "Produce", "enqueue", "convertAndSend", "basic_publish", "BasicPublish", "publishEvent", "send_task", "PublishMsg", "broadcast", "emit_signal", "sendMessage", "send_message", "SendMessage", "EnqueueAsync")
	sends      = Set("emit", "Emit", "trigger", "fire", "dispatch", "dispatchEvent", "notify", "send", "Send", "add")

	plainReceives = Set("subscribe", "Subscribe", "SubscribeAsync", "QueueSubscribe", "consume", "Consume", "basic_consume", "BasicConsume", "KafkaListener", "RabbitListener", "JmsListener", "SqsListener", "StreamListener", "EventListener", "MessagePattern", "EventPattern", "psubscribe", "OnEvent", "Subscription")
	receives      = Set("on", "On", "once", "addListener", "addEventListener", "listen", "connect", "process", "handle", "off")
)

// carriers are what the doubtful calls have to be called on, where a name alone
// could be anything.
var carriers = map[string]map[string]bool{
	"send":     Set("producer", "kafkaTemplate", "channel", "queue", "bus", "rabbitTemplate", "jmsTemplate", "sqs", "mailbox", "publisher"),
	"Send":     Set("producer", "bus", "queue", "channel", "publisher", "sender"),
	"add":      Set("queue", "jobs"),
	"process":  Set("queue", "jobs", "worker"),
	"handle":   Set("bus", "queue", "events"),
	"dispatch": Set("bus", "events", "dispatcher", "emitter"),
	"listen":   Set("Event", "events", "bus"),
	"connect":  nil,
	"off":      Set(),
}

var messageName = regexp.MustCompile(`^[A-Za-z][\w.:/*#-]{1,79}$`)

func (t *traiter) message(i int, name string, args [][2]int) {
	send := plainSends[name] || sends[name]
	if !send && !plainReceives[name] && !receives[name] {
		return
	}
	plain := plainSends[name] || plainReceives[name]
	on := t.receiver(i)
	if must, ok := carriers[name]; ok && must != nil && !must[on] && !must[strings.ToLower(on)] {
		return
	}
	if !plain && on == "" {
		return
	}
	for n, a := range args {
		if n > 3 {
			return
		}
		at := a[0]
		for t.s.IsIdent(at) && (t.s.Any(at+1, "=", ":")) { // topics = "…", routing_key="…"
			switch t.s.Text(at) {
			case "topics", "queues", "routing_key", "queue", "topic", "destination", "value", "name", "channel":
			default:
				at = a[1]
				continue
			}
			at += 2
		}
		if at >= a[1] {
			continue
		}
		if t.s.Any(at, "{", "[") {
			at++
		}
		if text, ok := t.text(at); ok {
			if messageName.MatchString(text) {
				t.keep(model.MessageFact{Name: text, Line: t.s.Line(i), Send: send, Plain: plain})
				return
			}
			continue
		}
		if c := t.constantAt(at, a[1]); c != "" {
			t.keep(model.MessageFact{Const: c, Line: t.s.Line(i), Send: send, Plain: plain})
			return
		}
		if n == 0 && !plain {
			return
		}
	}
}

// constantAt is the last part of a name written like a constant, which is all
// that the argument is.
func (t *traiter) constantAt(i, end int) string {
	for t.s.IsIdent(i) && i+2 < end && (t.s.Any(i+1, ".", "::")) {
		i += 2
	}
	if i+1 != end || !t.s.IsIdent(i) {
		return ""
	}
	name := t.s.Text(i)
	if len(name) > 2 && name[0] >= 'A' && name[0] <= 'Z' {
		return name
	}
	return ""
}

func (t *traiter) keep(m model.MessageFact) {
	if len(t.f.Messages) < maxTraits {
		t.f.Messages = append(t.f.Messages, m)
	}
}
