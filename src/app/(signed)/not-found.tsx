import { Link } from '@/ui/parts/Link'

export default function NotFound() {
  return (
    <main className="p-8">
      <h1>It is not there</h1>
      <p className="sentence">What this address names has gone, or it never was.</p>
      <Link className="button" href="/">
        Today
      </Link>
    </main>
  )
}
