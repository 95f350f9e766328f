import { Link } from "react-router";
import { say } from "../text/say";
import { useTitle } from "./focus";

export function NotThere() {
  useTitle(say("page.notThere"));
  return (
    <div className="m-auto max-w-md p-6 text-center">
      <h1 className="mb-2 text-3xl">{say("page.notThere")}</h1>
      <p className="mb-4 text-quiet">{say("problem.notFound")}</p>
      <Link to="/" className="press press-act">
        {say("nav.pieces")}
      </Link>
    </div>
  );
}
