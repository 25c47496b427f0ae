// A local server that responds to every reservation, for measuring many small calls.
import { createServer } from "node:http";

const answer = JSON.stringify({
  id: "r-1",
  berthId: "N-07",
  state: "booked",
  arrival: "2026-05-01",
  departure: "2026-05-02",
});

/** Starts it. Returns its address, and a function that ends it. */
export async function startReservations() {
  const server = createServer((request, response) => {
    request.resume().on("end", () => response.writeHead(201, { "content-type": "application/json" }).end(answer));
  });
  await new Promise((resolve) => server.listen(0, "127.0.0.1", resolve));
  return {
    address: `http://127.0.0.1:${server.address().port}`,
    end: () => {
      server.closeAllConnections();
      server.close();
    },
  };
}
