package e2e
import ("testing";"os";"time";"coldember/internal/demo";"github.com/chromedp/chromedp")
func snap(s *smith, name string){ b,_:=s.Shot(); os.WriteFile("/tmp/shots/"+name+".png",b,0o644)}
var _ = chromedp.Run[string]
func TestZZ(t *testing.T){
 os.MkdirAll("/tmp/shots",0o755)
 s:=open(t)
 s.bench(demo.Rigging,"anvil")
 time.Sleep(500*time.Millisecond)
 snap(s,"panel")
 s.click("[data-testid=to-the-fire]")
 s.until("there",`document.querySelector("[data-testid=anvil]")`)
 snap(s,"ready")
 s.keys(" ")
 s.until("fire",`document.querySelector("[data-phase=fire]")`)
 js[bool](s,`(()=>{const d=Date.now;let o=0;window.__skip=(x)=>{o+=x*1000};Date.now=()=>d.call(Date)+o;return true})()`)
 js[bool](s,`(window.__skip(80),true)`)
 time.Sleep(400*time.Millisecond)
 snap(s,"fire")
 js[bool](s,`(window.__skip(80),true)`)
 time.Sleep(400*time.Millisecond)
 s.keys(" ")
 s.until("out",`document.querySelector("[data-phase=out]")`)
 js[bool](s,`(window.__skip(6),true)`)
 time.Sleep(400*time.Millisecond)
 snap(s,"out")
}
