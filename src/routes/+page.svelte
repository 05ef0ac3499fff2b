<p>shelf</p>
